/** Whatever can be refused, said or done has words of its own: nothing ends in a sentence that tells nothing, or in a bare code. */
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { nameOfCommand } from './command-words';
import { sentenceFor } from './words';

/** Every file of the app that is no test. */
function listSources(folder: string): readonly string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return listSources(path);
    return /\.tsx?$/.test(path) && !/\.test\.tsx?$/.test(path) ? [path] : [];
  });
}

const sources = listSources('src').map((path) =>
  ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true),
);

/** The words that an expression can come to, where it names them: itself, or either side of a choice. */
function literalsOf(node: ts.Expression | undefined): readonly string[] {
  if (!node) return [];
  if (ts.isStringLiteral(node)) return [node.text];
  if (ts.isParenthesizedExpression(node)) return literalsOf(node.expression);
  return ts.isConditionalExpression(node) ? [...literalsOf(node.whenTrue), ...literalsOf(node.whenFalse)] : [];
}

/** What is handed to functions of these names, by the place of the argument that is the code. */
function codesOf(argumentOf: Readonly<Record<string, number>>): readonly string[] {
  const found = new Set<string>();
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) || ts.isNewExpression(node)) {
      const { expression } = node;
      const name = ts.isPropertyAccessExpression(expression) ? expression.name.text : expression.getText();
      if (Object.hasOwn(argumentOf, name))
        literalsOf(node.arguments?.[argumentOf[name]!]).forEach((code) => found.add(code));
    }
    ts.forEachChild(node, visit);
  };
  sources.forEach(visit);
  return [...found].sort();
}

const NOTHING_TOLD = sentenceFor('a code that nobody gives');

it('has a sentence for every refusal and everything that is said', () => {
  const codes = codesOf({ refused: 0, say: 0, sentenceFor: 0 });
  expect(codes.length).toBeGreaterThan(100);
  expect(codes.filter((code) => sentenceFor(code) === NOTHING_TOLD)).toEqual([]);
});

it('has a name for everything that can be done', () => {
  const codes = codesOf({
    command: 0,
    changeView: 0,
    changeAxes: 0,
    replaceOutline: 2,
    changeOutline: 1,
    addOutlines: 1,
    changeOutlines: 1,
    named: 1,
    nudgeOutline: 1,
  });
  expect(codes.length).toBeGreaterThan(70);
  const nameOf = (code: string) => nameOfCommand({ code, detail: {} }, { style: 'mm', denominator: 16 });
  expect(codes.filter((code) => nameOf(code) === nameOf('nothing that can be done'))).toEqual([]);
});
