import { readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { ROOT } from './lib/paths.mjs';
import { sources } from './lib/sources.mjs';

/** The names a file declares and exports, without its re-exports. */
function exportedNames(text) {
  const file = ts.createSourceFile('x.tsx', text, ts.ScriptTarget.Latest, false, ts.ScriptKind.TSX);
  const isExported = (node) => node.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword);
  return file.statements.filter(isExported).flatMap((node) => {
    if (ts.isVariableStatement(node)) {
      return node.declarationList.declarations.flatMap(({ name }) =>
        ts.isIdentifier(name) ? [name.text] : name.elements.map((each) => each.name.text),
      );
    }
    return node.name ? [node.name.text] : [];
  });
}

/**
 * The names exported from more than one file, with those files. A type and a value of one name count once.
 */
function sharedNames(texts) {
  const filesOf = new Map();
  for (const [file, text] of texts) {
    for (const name of new Set(exportedNames(text))) filesOf.set(name, [...(filesOf.get(name) ?? []), file]);
  }
  return [...filesOf].filter(([, files]) => files.length > 1);
}

describe('exported names', () => {
  it('each come from one file, so that a search finds what is meant', () => {
    const files = ['core', 'server', 'app', 'demo'].flatMap((each) => sources(path.join(ROOT, each, 'src')));
    const texts = files.map((file) => [path.relative(ROOT, file), readFileSync(file, 'utf8')]);
    expect(texts.flatMap(([, text]) => exportedNames(text)).length).toBeGreaterThan(1500);
    expect(sharedNames(texts)).toEqual([]);
  });

  it('are found where two files share one', () => {
    const texts = [
      ['a.ts', 'export const x = 1; export interface Y {}'],
      ['b.ts', 'export function x() {} export type Z = 1;'],
      ['c.ts', "export { x } from './a'; const Y = 1;"],
    ];
    expect(sharedNames(texts)).toEqual([['x', ['a.ts', 'b.ts']]]);
  });
});
