/** CodeMirror as the editor of a text project: completion and help from the blocks, plain sentences, guides, stops. */
import { autocompletion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { python } from '@codemirror/lang-python';
import {
  bracketMatching,
  HighlightStyle,
  indentOnInput,
  indentUnit,
  syntaxHighlighting,
  syntaxTree
} from '@codemirror/language';
import { linter } from '@codemirror/lint';
import { RangeSetBuilder, StateEffect, StateField, type Extension } from '@codemirror/state';
import {
  Decoration,
  EditorView,
  gutter,
  GutterMarker,
  hoverTooltip,
  keymap,
  lineNumbers,
  ViewPlugin,
  type DecorationSet,
  type ViewUpdate
} from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { readPython } from '../../../../../core/language/python/read.ts';
import { syntaxProblem } from '../../../../../core/language/python/syntax.ts';
import { definition } from '../../../../../core/language/catalogue.ts';
import { libraryWords } from '../../../../../core/language/python/words.ts';
import { say, word } from '../../../../../core/words.ts';

export const colours = HighlightStyle.define([
  { tag: tags.keyword, color: 'var(--order)', fontWeight: '700' },
  { tag: tags.string, color: 'var(--moss)' },
  { tag: tags.number, color: 'var(--water)' },
  { tag: tags.comment, color: 'var(--soft)', fontStyle: 'italic' },
  { tag: [tags.function(tags.variableName), tags.propertyName], color: 'var(--act)' },
  { tag: tags.variableName, color: 'var(--think)' }
]);
export const look = EditorView.theme({
  '&': { height: '100%', fontSize: '13.5px', backgroundColor: 'var(--paper)', color: 'var(--ink)' },
  '.cm-content': { fontFamily: 'var(--font-mono)', caretColor: 'var(--ink)' },
  '.cm-gutters': { backgroundColor: 'var(--linen)', color: 'var(--soft)', borderRight: '1px solid var(--rule)' },
  '.mb-line-running': { backgroundColor: 'color-mix(in srgb, #b5842a 26%, transparent)' },
  '.mb-line-pointed': { backgroundColor: 'color-mix(in srgb, var(--water) 18%, transparent)' },
  '.mb-guide': { boxShadow: 'inset 1px 0 var(--rule)' },
  '.mb-stops': { width: '16px', cursor: 'pointer' },
  '.mb-stop': { color: '#b8482a', paddingLeft: '3px' },
  '.cm-tooltip': {
    backgroundColor: 'var(--card)',
    color: 'var(--ink)',
    border: '1px solid var(--rule)',
    borderRadius: '8px',
    maxWidth: '340px'
  },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { backgroundColor: 'var(--linen)', color: 'var(--ink)' },
  '.mb-help': { padding: '6px 10px', fontFamily: 'var(--font-sans)' },
  '.cm-diagnostic': { fontFamily: 'var(--font-sans)', padding: '5px 9px' }
});

const titleOf = (kind: string): string => {
  const { label } = definition(kind);
  return `${word(label[0])}: ${word(label[1])}`;
};
function complete(context: CompletionContext): CompletionResult | null {
  // words and notes of a person are theirs
  if (/String|Comment/.test(syntaxTree(context.state).resolveInner(context.pos, -1).name)) return null;
  const before = context.matchBefore(/[\w.]+/);
  if (!before && !context.explicit) return null;
  return {
    from: before?.from ?? context.pos,
    validFor: /^[\w.]*$/,
    options: libraryWords().map((w) => ({
      label: w.label,
      detail: titleOf(w.kind),
      info: word(definition(w.kind).help),
      apply: w.text,
      type: 'function'
    }))
  };
}
const help = hoverTooltip((view, pos) => {
  const line = view.state.doc.lineAt(pos);
  for (const found of line.text.matchAll(/[a-z_][\w.]*/gi)) {
    const from = line.from + found.index;
    if (pos < from || pos > from + found[0].length) continue;
    // a part may have a name of its own: then the verb behind the dot tells
    const verb = found[0].split('.')[1];
    const said =
      libraryWords().find((w) => w.label === found[0]) ??
      (verb ? libraryWords().find((w) => w.label.split('.')[1] === verb) : undefined);
    if (!said) return null;
    return {
      pos: from,
      end: from + found[0].length,
      create: () => {
        const dom = document.createElement('div');
        dom.className = 'mb-help';
        const title = document.createElement('b');
        title.textContent = titleOf(said.kind);
        const text = document.createElement('p');
        text.textContent = word(definition(said.kind).help);
        dom.append(title, text);
        return { dom };
      }
    };
  }
  return null;
});
const sentences = linter((view) => {
  const text = view.state.doc.toString();
  const problem = syntaxProblem(text);
  if (!problem) {
    const read = readPython(text);
    return (read.ok ? [] : read.problems).flatMap(({ line, message, word }) => {
      if (!word || line >= view.state.doc.lines) return [];
      const { from } = view.state.doc.line(line + 1);
      return [{ from: from + word.from, to: from + word.to, severity: 'error' as const, message }];
    });
  }
  const line = view.state.doc.line(Math.min(view.state.doc.lines, problem.line + 1));
  return [{ from: line.from, to: Math.max(line.to, line.from + 1), severity: 'error', message: problem.message }];
});
/** A faint line at each step in. */
const guides = ViewPlugin.fromClass(
  class {
    decorations: DecorationSet;
    constructor(view: EditorView) {
      this.decorations = this.build(view);
    }
    update(u: ViewUpdate): void {
      if (u.docChanged || u.viewportChanged) this.decorations = this.build(u.view);
    }
    build(view: EditorView): DecorationSet {
      const builder = new RangeSetBuilder<Decoration>();
      const mark = Decoration.mark({ class: 'mb-guide' });
      for (const { from, to } of view.visibleRanges)
        for (let at = from; at <= to;) {
          const line = view.state.doc.lineAt(at);
          const indent = /^ */.exec(line.text)![0].length;
          for (let i = 0; i + 4 <= indent; i += 4) builder.add(line.from + i, line.from + i + 1, mark);
          at = line.to + 1;
        }
      return builder.finish();
    }
  },
  { decorations: (p) => p.decorations }
);

/** Lines that run now, counted from 1. */
export const setRunning = StateEffect.define<readonly number[]>();
const running = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(set, tr) {
    for (const e of tr.effects)
      if (e.is(setRunning))
        return Decoration.set(
          e.value
            .filter((n) => n >= 1 && n <= tr.state.doc.lines)
            .map((n) => Decoration.line({ class: 'mb-line-running' }).range(tr.state.doc.line(n).from))
        );
    return set.map(tr.changes);
  },
  provide: (f) => EditorView.decorations.from(f)
});

class Stop extends GutterMarker {
  override toDOM(): Node {
    const dot = document.createElement('span');
    dot.className = 'mb-stop';
    dot.textContent = '●';
    dot.title = say('The run stops before this line');
    return dot;
  }
}
/** @param stops lines to stop before, from 0; @param toggle a click beside a line */
export const extensions = (stops: () => ReadonlySet<number>, toggle: (line: number) => void): Extension => [
  gutter({
    class: 'mb-stops',
    lineMarker: (view, block) => (stops().has(view.state.doc.lineAt(block.from).number - 1) ? new Stop() : null),
    lineMarkerChange: () => true,
    initialSpacer: () => new Stop(),
    domEventHandlers: {
      mousedown: (view, block) => {
        toggle(view.state.doc.lineAt(block.from).number - 1);
        return true;
      }
    }
  }),
  lineNumbers(),
  history(),
  python(),
  indentUnit.of('    '),
  indentOnInput(),
  bracketMatching(),
  syntaxHighlighting(colours),
  autocompletion({ override: [complete] }),
  help,
  sentences,
  guides,
  running,
  keymap.of([...defaultKeymap, ...historyKeymap, indentWithTab]),
  EditorView.contentAttributes.of({ tabindex: '0', 'aria-label': say('Python text of the program') }),
  look
];
