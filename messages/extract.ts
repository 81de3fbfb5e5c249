/**
 * Gathers every word that a person reads into messages/en.json, the file that a translation starts from:
 * npm run messages. A translation has the same keys; see docs/formats/messages.md.
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parse } from 'svelte/compiler';
import ts from 'typescript';
import { catalogue } from '../core/language/catalogue.ts';
import { SECTIONS } from '../core/language/define.ts';
import { ERRORS } from '../core/language/meaning.ts';
import { INPUT_TYPES } from '../core/language/program.ts';
import type { MessageFile } from '../src/lib/messages.ts';

const SAYS = new Set(['say', 'later', 'word', 'retell']);
const root = fileURLToPath(new URL('..', import.meta.url));
const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? files(join(folder, e.name)) : [join(folder, e.name)]
  );

/** The texts in the first argument of say(), later() and word(): a literal, or the literals of a choice between them. */
function ofScript(source: string, add: (text: string) => void): void {
  const literals = (node: ts.Node): void => {
    if (ts.isStringLiteralLike(node)) add(node.text);
    else if (ts.isConditionalExpression(node)) [node.whenTrue, node.whenFalse].forEach(literals);
    else if (ts.isParenthesizedExpression(node)) literals(node.expression);
  };
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) && ts.isIdentifier(node.expression) && SAYS.has(node.expression.text))
      literals(node.arguments[0]);
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile('it.ts', source, ts.ScriptTarget.Latest, true));
}
/** The expressions of a component: its script, and what stands in braces in its markup. */
function ofComponent(source: string, add: (text: string) => void): void {
  type Node = { type?: string; start?: number; end?: number; [key: string]: unknown };
  const visit = (node: unknown): void => {
    if (!node || typeof node !== 'object') return;
    if (Array.isArray(node)) return node.forEach(visit);
    const { type, start, end } = node as Node;
    if (type === 'CallExpression') return ofScript(source.slice(start, end), add);
    for (const [key, value] of Object.entries(node)) if (key !== 'metadata' && key !== 'css') visit(value);
  };
  const { instance, fragment } = parse(source, { modern: true });
  if (instance) ofScript(source.slice(instance.content.start, instance.content.end), add);
  visit(fragment);
}

/** Every message of the code as it stands, sorted, each with itself as its English. */
export function extract(): MessageFile {
  const told = new Set<string>();
  for (const folder of ['src', 'core', 'board'])
    for (const file of files(join(root, folder))) {
      if (/\.test\.ts$|core\/words\.ts$/.test(file)) continue;
      if (file.endsWith('.ts')) ofScript(readFileSync(file, 'utf8'), (t) => told.add(t));
      if (file.endsWith('.svelte')) ofComponent(readFileSync(file, 'utf8'), (t) => told.add(t));
    }
  for (const sentence of Object.values(ERRORS)) told.add(sentence);
  for (const type of INPUT_TYPES) told.add(type);
  for (const { title } of Object.values(SECTIONS)) told.add(title);
  const blocks = new Set<string>();
  for (const def of catalogue.values()) {
    if (!def.grows) blocks.add(def.words);
    for (const phrase of def.grows?.phrases ?? []) blocks.add(`${phrase} @${def.kind}`);
    for (const text of [...def.label, def.help, def.mistake, def.also]) if (text) blocks.add(text);
    for (const slot of Object.keys(def.slots)) blocks.add(`${slot} @slot`);
    for (const spec of Object.values(def.slots))
      if (spec.type === 'choice') for (const text of [...spec.options, spec.hint]) if (text) blocks.add(text);
  }
  const file = (keys: Set<string>): Record<string, string> =>
    Object.fromEntries(
      [...keys]
        .filter((k) => /\p{L}/u.test(k))
        .sort()
        .map((k) => [k, k.replace(/ @[a-z.]+$/, '')])
    );
  return { interface: file(told), blocks: file(blocks) };
}
export const asText = (messages: MessageFile): string => `${JSON.stringify(messages, null, 2)}\n`;

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  writeFileSync(new URL('./en.json', import.meta.url), asText(extract()));
  console.log('messages/en.json is up to date');
}
