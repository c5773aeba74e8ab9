/**
 * What a press on the plan does in the artwork stage. Each tool becomes a button of the tool bar, an action with this name and
 * key, and a line of the sheet of keys; how it looks and what it puts over the plan says `table/tools/registry.tsx`.
 */
export const planTools = [
  { id: 'pick', name: 'Pick and move', shortcut: 'V' },
  { id: 'line', name: 'Draw lines', shortcut: 'D' },
  { id: 'curve', name: 'Draw a curve', shortcut: 'Shift+D' },
  { id: 'arc', name: 'Draw an arc through three points', shortcut: 'A' },
  { id: 'centred-arc', name: 'Draw an arc about its centre', shortcut: 'Shift+A' },
  { id: 'nodes', name: 'Change nodes', shortcut: 'N' },
  { id: 'trim', name: 'Trim lines at crossings', shortcut: 'X' },
  { id: 'measure', name: 'Measure from point to point', shortcut: 'Q' },
] as const;

export type Tool = (typeof planTools)[number]['id'];
