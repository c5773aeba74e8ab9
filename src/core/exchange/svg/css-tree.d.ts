// The parts of css-tree that are used here: its parser and its generator, without the tables of all properties.
declare module 'css-tree/parser' {
  interface Kids {
    readonly children: Iterable<CssNode> | null;
  }
  export type CssNode =
    | ({ readonly type: 'StyleSheet' | 'DeclarationList' | 'Block' | 'SelectorList' | 'Selector' } & Kids)
    | { readonly type: 'Rule'; readonly prelude: CssNode; readonly block: CssNode }
    | {
        readonly type: 'Atrule';
        readonly name: string;
        readonly prelude: CssNode | null;
        readonly block: CssNode | null;
      }
    | {
        readonly type: 'Declaration';
        readonly property: string;
        readonly value: CssNode;
        readonly important: boolean | string;
      }
    | { readonly type: 'TypeSelector' | 'ClassSelector' | 'IdSelector' | 'Combinator'; readonly name: string }
    | ({ readonly type: 'PseudoClassSelector'; readonly name: string } & Kids)
    | {
        readonly type: 'AttributeSelector';
        readonly name: { readonly name: string };
        readonly matcher: string | null;
        readonly value:
          | { readonly type: 'String'; readonly value: string }
          | { readonly type: 'Identifier'; readonly name: string }
          | null;
      }
    | { readonly type: 'Raw'; readonly value: string };
  export default function parse(
    text: string,
    options: { readonly context: string; readonly parseValue: boolean; readonly parseCustomProperty: boolean },
  ): CssNode;
}
declare module 'css-tree/generator' {
  import type { CssNode } from 'css-tree/parser';
  export default function generate(node: CssNode): string;
}
