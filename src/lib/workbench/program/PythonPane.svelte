<!-- The program's text, read only: a line lights its block, a block its lines. -->
<script lang="ts">
  import { python } from '@codemirror/lang-python';
  import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
  import { EditorState, RangeSetBuilder, StateEffect, StateField } from '@codemirror/state';
  import { Decoration, EditorView, lineNumbers, type DecorationSet } from '@codemirror/view';
  import { tags } from '@lezer/highlight';
  import { onMount } from 'svelte';
  import { printPython, type Printed } from '../../../../core/language/python/print.ts';
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
  onMount(() => {
    view = new EditorView({
      parent: host,
      state: EditorState.create({
        doc: printed.text,
        extensions: [
          lineNumbers(),
          python(),
          syntaxHighlighting(colours),
          EditorState.readOnly.of(true),
          EditorView.editable.of(false),
          EditorView.contentAttributes.of({ 'aria-label': 'Python text of the program', tabindex: '0' }),
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
    return () => view?.destroy();
  });
  $effect(() => {
    const { text } = printed;
    if (view && view.state.doc.toString() !== text)
      view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } });
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
