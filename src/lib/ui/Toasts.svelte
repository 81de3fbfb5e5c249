<!-- What has just been done, at the foot of the page; the newest is the lowest. -->
<script lang="ts">
  import Toast from 'flowbite-svelte/Toast.svelte';
  import X from '@lucide/svelte/icons/x';
  import { say } from '../../../core/words.ts';
  import Button from './Button.svelte';
  import { toasts } from './toasts.svelte.ts';
</script>

<div data-toasts class="pointer-events-none fixed inset-x-3 bottom-4 z-[90] flex flex-col items-center gap-2">
  {#each toasts.list as toast (toast.id)}
    <Toast
      dismissable={false}
      role="group"
      params={{ duration: 0 }}
      class="pointer-events-auto w-auto! max-w-xl rounded-lg border border-[#51665a] bg-header px-4 py-2 text-[#eef2e4] shadow-lg dark:bg-header dark:text-[#eef2e4]"
      classes={{ content: 'flex items-center gap-3 text-[14px]' }}
      onpointerenter={() => toasts.hold(toast.id)}
      onpointerleave={() => toasts.goOn(toast.id)}
      onfocusin={() => toasts.hold(toast.id)}
      onfocusout={() => toasts.goOn(toast.id)}
      ><span>{toast.text}</span>{#if toast.deed}<Button look="go" size="sm" onclick={() => toasts.close(toast.id, true)}
          >{toast.deed.label}</Button
        >{/if}<Button
        look="ghost"
        class="border-0 px-1.5"
        aria-label={say('Close')}
        onclick={() => toasts.close(toast.id)}><X size={15} /></Button
      ></Toast
    >
  {/each}
</div>
