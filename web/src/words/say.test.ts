/** Every sentence of the interface is in one file, so that another language is another file: nothing is said anywhere else, and nothing is kept unsaid. */
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

import { expect, test } from '@jest/globals';
import ts from 'typescript';

import { say } from './say';

const SRC = join(dirname(fileURLToPath(import.meta.url)), '..');
/** Attributes that somebody reads or hears. */
const TOLD =
  /^(aria-(label|description|roledescription)|ariaLabel|title|placeholder|alt|label|what|about|hint|unit|done|detail|nobody|said)$/;
/** What is no language: names of keys, of the product, of what is typed at the machine, and of formats. */
const NO_LANGUAGE =
  /^(Enter|Escape|Esc|Arrow(Up|Down|Left|Right)|Content-Type|Waxwing|[A-Z]\w*Error|[A-Z]\w*Row|kg|lb|s|cm|\(prefers-.*|color-mix.*)$/;

const sources = readdirSync(SRC, { recursive: true, encoding: 'utf8' })
  .filter((path) => /\.tsx?$/.test(path) && !/\.test\.tsx?$|\.d\.ts$|words[\\/]en\.ts$/.test(path))
  .map((path) => join(SRC, path));

const isText = (node: ts.Node): node is ts.StringLiteral | ts.NoSubstitutionTemplateLiteral | ts.TemplateExpression =>
  ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node) || ts.isTemplateExpression(node);

const wordsOf = (node: ts.StringLiteral | ts.NoSubstitutionTemplateLiteral | ts.TemplateExpression): string =>
  ts.isTemplateExpression(node)
    ? [node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)].join('…')
    : node.text;

/** Where a text ends up: as a child, in an attribute, or elsewhere. */
function placeOf(node: ts.Node): { child: boolean; attribute: string | null } {
  for (let [inner, outer] = [node, node.parent]; outer; [inner, outer] = [outer, outer.parent]) {
    if (ts.isJsxAttribute(outer)) return { child: false, attribute: outer.name.getText() };
    if (ts.isJsxExpression(outer)) {
      if (ts.isJsxAttribute(outer.parent)) continue;
      return { child: true, attribute: null };
    }
    const passes =
      ts.isParenthesizedExpression(outer) ||
      ts.isTemplateSpan(outer) ||
      ts.isTemplateExpression(outer) ||
      (ts.isConditionalExpression(outer) && outer.condition !== inner) ||
      (ts.isBinaryExpression(outer) && /^(\?\?|\|\||&&)$/.test(outer.operatorToken.getText()));
    if (!passes) break;
  }
  return { child: false, attribute: null };
}

/** Classes of a style sheet look like words. */
const styles = (words: string): boolean =>
  /(^|[\s…])(btn|link|quiet|flex|grid|page|card|input|select|[a-z]+-[\w[\]()./%-]+|[\w-]+:[\w-]+)(?=[\s…]|$)/.test(
    words,
  ) && !/[A-Z.,;?!]\s|[.?!]$|[’“]/.test(words);

function reads(words: string): boolean {
  if (NO_LANGUAGE.test(words.trim())) return false;
  // `3 sets`, or a word beside a value.
  if (/(\d|…) \p{Ll}{2,}|\p{Ll}{2,}:? …/u.test(words) && !styles(words)) return true;
  return /^[\s,;:·]*\p{Lu}\p{Ll}+/u.test(words) || (/\p{Ll}{2,}[,;:.]? \p{Ll}{2,}/u.test(words) && !styles(words));
}

/** Texts that a tool, and nobody else, reads: an import, a key, what is compared with, what a programmer is told. */
function forTheMachine(node: ts.Node): boolean {
  const { parent } = node;
  return (
    ts.isImportDeclaration(parent) ||
    ts.isExportDeclaration(parent) ||
    ts.isLiteralTypeNode(parent) ||
    ts.isCaseClause(parent) ||
    ts.isElementAccessExpression(parent) ||
    (ts.isPropertyAssignment(parent) && (parent.name === node || /class|columns/i.test(parent.name.getText()))) ||
    (ts.isBinaryExpression(parent) && /^[!=]==$/.test(parent.operatorToken.getText())) ||
    (ts.isNewExpression(parent) && /Error$/.test(parent.expression.getText()))
  );
}

function saidIn(path: string): string[] {
  const file = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const at = (node: ts.Node, words: string): void => {
    found.push(
      `${relative(SRC, path)}:${file.getLineAndCharacterOfPosition(node.getStart()).line + 1} ${words.trim()}`,
    );
  };
  const visit = (node: ts.Node): void => {
    if (ts.isJsxText(node) && /\p{L}{2,}/u.test(node.text) && !NO_LANGUAGE.test(node.text.trim())) at(node, node.text);
    if (isText(node) && !forTheMachine(node)) {
      const words = wordsOf(node);
      const { child, attribute } = placeOf(node);
      const letters = /\p{L}{2,}/u.test(words) && !NO_LANGUAGE.test(words.trim());
      if (attribute === null ? (child ? letters : reads(words)) : TOLD.test(attribute) && letters) at(node, words);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

/** Programs of the graphics card. */
const PROGRAMS = /figures[\\/]stage\.ts$/;

test('no sentence is left in a component', () => {
  expect(sources.filter((path) => !PROGRAMS.test(path)).flatMap(saidIn)).toEqual([]);
});

test('every sentence is said somewhere', () => {
  const code = sources.map((path) => readFileSync(path, 'utf8')).join('\n');
  const said = new Set(
    [...code.matchAll(/\bsay\s*\.\s*(\w+)\s*\.\s*(\w+)/g)].map(([, screen, key]) => `${screen}.${key}`),
  );
  const kept = Object.entries(say).flatMap(([screen, words]) => Object.keys(words).map((key) => `${screen}.${key}`));
  expect(kept.filter((key) => !said.has(key))).toEqual([]);
});
