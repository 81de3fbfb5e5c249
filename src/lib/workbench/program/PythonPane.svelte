<!-- The program's text: a line lights its block, a block its lines. Its notes can be written here too; nothing else can. -->
<script lang="ts">
  import { python } from '@codemirror/lang-python';
  import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
  import {
    Annotation,
    EditorState,
    RangeSetBuilder,
    StateEffect,
    StateField,
    type Transaction
  } from '@codemirror/state';
  import { Decoration, EditorView, lineNumbers, type DecorationSet } from '@codemirror/view';
  import { tags } from '@lezer/highlight';
  import { onMount } from 'svelte';
  import { printPython, type Printed } from '../../../../core/language/python/print.ts';
  import { noteOn } from '../../../../core/language/edit.ts';
  import { say } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';

  const w = useWorkbench();
  let host: HTMLDivElement;
  let view: EditorView | undefined;
  const printed: Printed = $derived(printPython(w.session.project.program, w.session.project.kit));
  const setLit = StateEffect.define<{ pointed?: string; running: string[] }>();
  const litField = StateField.define<DecorationSet>({
    create: () => Decoration.none,
    update(set, tr) {
      for (const e of tr.effects)
        if (e.is(setLit)) {
          const builder = new RangeSetBuilder<Decoration>();
          printed.blocks.forEach((block, i) => {
            if (!block || i >= tr.state.doc.lines) return;
            const cls = e.value.running.includes(block)
              ? 'mb-line-running'
              : block === e.value.pointed
                ? 'mb-line-pointed'
                : '';
            if (cls)
              builder.add(
                tr.state.doc.line(i + 1).from,
                tr.state.doc.line(i + 1).from,
                Decoration.line({ class: cls })
              );
          });
          return builder.finish();
        }
      return tr.docChanged ? Decoration.none : set;
    },
    provide: (f) => EditorView.decorations.from(f)
  });
  const colours = HighlightStyle.define([
    { tag: tags.keyword, color: 'var(--order)', fontWeight: '700' },
    { tag: tags.string, color: 'var(--moss)' },
    { tag: tags.number, color: 'var(--water)' },
    { tag: tags.comment, color: 'var(--soft)', fontStyle: 'italic' },
    { tag: [tags.function(tags.variableName), tags.propertyName], color: 'var(--act)' },
    { tag: tags.variableName, color: 'var(--think)' }
  ]);
  /** the text as it is printed, not as somebody types it */
  const printing = Annotation.define<boolean>();
  let due: ReturnType<typeof setTimeout> | undefined;
  const NOTE = /^\s*#:? ?(?!(?:off|parked|loose): )/;
  const noteAt = (line: number): string | undefined =>
    view && NOTE.test(view.state.doc.line(line + 1).text) ? (printed.blocks[line] ?? undefined) : undefined;
  /** Within one line of a note, behind its mark, anything can be typed but an end of the line. */
  function inNotes(tr: Transaction): boolean {
    let all = true;
    tr.changes.iterChanges((from, to, _, __, text) => {
      const line = tr.startState.doc.lineAt(from);
      const mark = NOTE.exec(line.text)?.[0].length;
      all &&= mark !== undefined && noteAt(line.number - 1) !== undefined && text.lines === 1;
      all &&= from >= line.from + (mark ?? 0) && to <= line.to;
    });
    return all;
  }
  /** What was typed becomes the block's note. */
  function takeNotes(): void {
    clearTimeout(due);
    if (!view || view.state.doc.toString() === printed.text) return;
    const notes = new Map<string, string[]>();
    for (let i = 0; i < printed.blocks.length; i++) {
      const block = noteAt(i);
      const text = view.state.doc.line(i + 1).text.replace(NOTE, '');
      if (block) notes.set(block, [...(notes.get(block) ?? []), text]);
    }
    let { program } = w.session.project;
    for (const [block, lines] of notes) program = noteOn(program, block, lines.join('\n').trimEnd());
    w.session.program(say('note on a block'), program);
  }
  onMount(() => {
    view = new EditorView({
      parent: host,
      state: EditorState.create({
        doc: printed.text,
        extensions: [
          lineNumbers(),
          python(),
          syntaxHighlighting(colours),
          EditorState.changeFilter.of((tr) => tr.annotation(printing) || inNotes(tr)),
          EditorView.updateListener.of((u) => {
            if (!u.docChanged || u.transactions.some((tr) => tr.annotation(printing))) return;
            clearTimeout(due);
            due = setTimeout(takeNotes, 400);
          }),
          EditorView.domEventHandlers({ blur: takeNotes }),
          EditorView.contentAttributes.of({
            tabindex: '0',
            'aria-label': say('Python text of the program'),
            spellcheck: 'false'
          }),
          litField,
          EditorView.theme({
            '&': { height: '100%', fontSize: '13px', backgroundColor: 'var(--paper)', color: 'var(--ink)' },
            '.cm-content': { fontFamily: 'var(--font-mono)' },
            '.cm-gutters': {
              backgroundColor: 'var(--linen)',
              color: 'var(--soft)',
              borderRight: '1px solid var(--rule)'
            },
            '.mb-line-running': { backgroundColor: 'color-mix(in srgb, #b5842a 26%, transparent)' },
            '.mb-line-pointed': { backgroundColor: 'color-mix(in srgb, var(--water) 18%, transparent)' }
          })
        ]
      })
    });
    return () => {
      takeNotes();
      view?.destroy();
    };
  });
  $effect(() => {
    const { text } = printed;
    if (view && view.state.doc.toString() !== text)
      view.dispatch({
        changes: { from: 0, to: view.state.doc.length, insert: text },
        annotations: printing.of(true)
      });
  });
  $effect(() => {
    view?.dispatch({ effects: setLit.of({ pointed: w.pointed ?? w.selected, running: w.runs.lit }) });
  });
  function hover(event: PointerEvent) {
    const at = view?.posAtCoords({ x: event.clientX, y: event.clientY });
    w.pointed =
      at === null || at === undefined
        ? undefined
        : (printed.blocks[view!.state.doc.lineAt(at).number - 1] ?? undefined);
  }
</script>

<div
  bind:this={host}
  class="h-full overflow-hidden"
  onpointermove={hover}
  onpointerleave={() => (w.pointed = undefined)}
  role="presentation"
  data-testid="python"
></div>
