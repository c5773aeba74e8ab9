// Lists every message that a maker may be shown, from the code: docs/messages.md. With --check it only says whether that is current.
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';

const FILE = 'docs/messages.md';
/** What says something to the maker: calls by name, with the place of their words, and fields of findings and remarks. */
const calls = {
  tell: 1,
  setTrouble: 0,
  setError: 0,
  setWrong: 0,
  wrong: 1,
  saysOf: 1,
  enqueueSnackbar: 0,
  GivenUp: 0,
  refuse: 1,
  refuseHere: 1,
  say: 0,
};
const fields = new Set(['text', 'error', 'message', 'why']);

function* files(dir) {
  for (const e of readdirSync(dir, { withFileTypes: true })) {
    const at = path.join(dir, e.name);
    if (e.isDirectory()) yield* files(at);
    else if (
      /\.tsx?$/.test(e.name) &&
      !/\.test\./.test(e.name) &&
      ![`${path.sep}testing${path.sep}`, `${path.sep}demo${path.sep}`].some((d) => at.includes(d))
    )
      yield at;
  }
}

/** The words of an expression, with what is put in shown by name; null where there are none. */
function wordsOf(node, source) {
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text;
  if (ts.isTemplateExpression(node))
    return (
      node.head.text + node.templateSpans.map((s) => `<${nameOf(s.expression, source)}>${s.literal.text}`).join('')
    );
  if (ts.isConditionalExpression(node))
    return [wordsOf(node.whenTrue, source), wordsOf(node.whenFalse, source)].filter(Boolean);
  if (ts.isParenthesizedExpression(node)) return wordsOf(node.expression, source);
  return null;
}
const nameOf = (e, source) =>
  ts.isIdentifier(e)
    ? e.text
    : ts.isPropertyAccessExpression(e)
      ? e.name.text
      : ts.isCallExpression(e) && e.arguments.length
        ? nameOf(e.arguments[0], source)
        : '\u2026';

const found = new Map();
const sentence = (w) => /[a-z]{2,} .*[a-z]/i.test(w) && w.length > 11;
for (const file of files('src')) {
  const source = ts.createSourceFile(
    file,
    readFileSync(file, 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const room = path
    .dirname(file)
    .replace(/^src\//, '')
    .split(path.sep)
    .join('/');
  const take = (node) => {
    if (!node) return;
    for (const w of [wordsOf(node, source)].flat(3))
      if (w && sentence(w)) found.set(w.replace(/\s+/g, ' ').trim(), room);
  };
  const walk = (node) => {
    if (ts.isCallExpression(node)) {
      const name = ts.isIdentifier(node.expression)
        ? node.expression.text
        : ts.isPropertyAccessExpression(node.expression)
          ? node.expression.name.text
          : '';
      if (name in calls) take(node.arguments[calls[name]]);
      else if (
        name === 'add' &&
        ts.isPropertyAccessExpression(node.expression) &&
        /remarks/.test(node.expression.expression.getText(source))
      )
        take(node.arguments[0]);
      else if (name === 'super' || node.expression.kind === ts.SyntaxKind.SuperKeyword) take(node.arguments[0]);
    } else if (ts.isNewExpression(node) && /Error$/.test(node.expression.getText(source)))
      for (const a of node.arguments ?? []) take(a);
    else if (ts.isPropertyAssignment(node) && ts.isIdentifier(node.name) && fields.has(node.name.text))
      take(node.initializer);
    else if (ts.isReturnStatement(node) && node.expression && /Message$|whyNot|tooMany/.test(functionOf(node)))
      take(node.expression);
    ts.forEachChild(node, walk);
  };
  walk(source);
}
function functionOf(node) {
  for (let n = node.parent; n; n = n.parent) {
    if (ts.isFunctionDeclaration(n)) return n.name?.text ?? '';
    if (ts.isArrowFunction(n) && ts.isVariableDeclaration(n.parent)) return n.parent.name.getText();
  }
  return '';
}

const rooms = [...new Set(found.values())].sort();
const text = `# Messages\n\nEverything that Mirvak says when something is wrong or done, by the room of the code that says it. Made by \`node scripts/messages.mjs\`; \`<name>\` stands for what is put in.\n${rooms
  .map(
    (r) =>
      `\n## ${r}\n\n| message |\n| --- |\n${[...found]
        .filter(([, q]) => q === r)
        .map(([w]) => `| ${w.replace(/\|/g, '\\|')} |`)
        .sort()
        .join('\n')}\n`,
  )
  .join('')}`;
if (process.argv.includes('--check')) {
  if (readFileSync(FILE, 'utf8') !== text) {
    console.error(`${FILE} is not current: run node scripts/messages.mjs`);
    process.exit(1);
  }
} else writeFileSync(FILE, text);
