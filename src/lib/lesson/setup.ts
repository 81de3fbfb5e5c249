/** CodeMirror as the editor of a lesson's text: Markdown, and what is wrong in it at its place. */
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { markdown } from '@codemirror/lang-markdown';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { linter, lintGutter } from '@codemirror/lint';
import type { Extension } from '@codemirror/state';
import { EditorView, keymap, lineNumbers } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import type { Problem } from '../../../core/lesson/page.ts';
import { say } from '../../../core/words.ts';
import { look } from '../workbench/program/text/setup.ts';

const colours = HighlightStyle.define([
  { tag: tags.heading, color: 'var(--order)', fontWeight: '700' },
  { tag: tags.emphasis, fontStyle: 'italic' },
  { tag: tags.strong, fontWeight: '700' },
  { tag: tags.link, color: 'var(--water)' },
  { tag: [tags.monospace, tags.labelName], color: 'var(--act)' },
  { tag: [tags.processingInstruction, tags.meta], color: 'var(--soft)' }
]);
export const extensions = (problems: (text: string) => readonly Problem[]): Extension => [
  lineNumbers(),
  history(),
  markdown(),
  syntaxHighlighting(colours),
  EditorView.lineWrapping,
  lintGutter(),
  linter(
    (view) => {
      const text = view.state.doc.toString();
      return problems(text).map(({ from, to, says }) => ({
        from: Math.min(from, text.length),
        to: Math.min(Math.max(to, from), text.length),
        severity: 'error',
        message: says
      }));
    },
    { delay: 300 }
  ),
  keymap.of([...defaultKeymap, ...historyKeymap]),
  EditorView.contentAttributes.of({ tabindex: '0', 'aria-label': say('Text of the lesson') }),
  look
];
