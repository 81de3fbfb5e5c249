<script lang="ts">
  import Tick from '../../ui/Tick.svelte';
  import Slide from '../../ui/Slide.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Button from '../../ui/Button.svelte';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import { say, word } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { asItIs, inOrder, isShown, type Lane } from './lanes.ts';
  import Sheet from './Sheet.svelte';
  let { all }: { all: Lane[] } = $props();
  const w = useWorkbench();
  const view = w.trace;
  const a = $derived(view.arrangement);
  const list = $derived(inOrder(all, a));
  function show(lane: Lane, on: boolean) {
    const without = (keys: string[]) => keys.filter((k) => k !== lane.key);
    view.put({
      ...a,
      shown: on && !lane.usual ? [...without(a.shown), lane.key] : without(a.shown),
      hidden: !on && lane.usual ? [...without(a.hidden), lane.key] : without(a.hidden)
    });
  }
  function move(i: number, by: number) {
    const order = list.map((l) => l.key);
    const [key] = order.splice(i, 1);
    order.splice(i + by, 0, key);
    view.put({ ...a, order });
  }
  function over(lane: Lane, on: string) {
    const { [lane.key]: _, ...rest } = a.over;
    view.put({ ...a, over: on ? { ...rest, [lane.key]: on } : rest });
  }
  const sized = (lane: Lane) => a.height[lane.key] ?? lane.height;
</script>

<Sheet title={say('Lanes')} wide>
  {#snippet head()}<Button look="quiet" onclick={() => view.put(asItIs())}>{say('As at first')}</Button>{/snippet}
  <ul class="text-[13px]" data-testid="lane-list">
    {#each list as lane, i (lane.key)}
      <li class="flex items-center gap-2 py-0.5">
        <label class="flex min-w-0 flex-1 items-center gap-1.5"
          ><Tick checked={isShown(lane, a)} onchange={(e) => show(lane, e.currentTarget.checked)} /><span
            class="truncate">{word(lane.title)} <small class="text-soft">{word(lane.line)}</small></span
          ></label
        >
        {#if lane.kind === 'curve' || lane.kind === 'plot' || lane.kind === 'variable'}
          <Choice
            size="sm"
            class="max-w-36"
            aria-label={say('{lane} lies over', { lane: word(lane.title) })}
            value={a.over[lane.key] ?? ''}
            onchange={(e) => over(lane, e.currentTarget.value)}
            ><option value="">{say('on its own')}</option
            >{#each list.filter((l) => l.kind === 'curve' && l.key !== lane.key && !a.over[l.key]) as l (l.key)}<option
                value={l.key}>{say('over {lane}', { lane: word(l.title) })}</option
              >{/each}</Choice
          >{/if}
        <Slide
          min="16"
          max="160"
          class="w-20"
          aria-label={say('Height of {lane}', { lane: word(lane.title) })}
          value={sized(lane)}
          oninput={(e) => view.put({ ...a, height: { ...a.height, [lane.key]: e.currentTarget.valueAsNumber } })}
        />
        <Button
          look="quiet"
          class="px-1"
          disabled={i === 0}
          aria-label={say('{lane} up', { lane: word(lane.title) })}
          onclick={() => move(i, -1)}><ArrowUp size={14} /></Button
        >
        <Button
          look="quiet"
          class="px-1"
          disabled={i === list.length - 1}
          aria-label={say('{lane} down', { lane: word(lane.title) })}
          onclick={() => move(i, 1)}><ArrowDown size={14} /></Button
        >
      </li>
    {/each}
  </ul>
</Sheet>
