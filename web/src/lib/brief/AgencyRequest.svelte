<script lang="ts">
  import { changeBuild } from '@flarik/core/design/moduleEdits';
  import { Brief, DUTIES } from '@flarik/core/design/brief';
  import { changeBrief } from '@flarik/core/design/briefEdits';
  import { Service, serviceName, SERVICES } from '@flarik/core/words/service';
  import { Select, SelectItem, TextArea, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';

  /** Agency request in the first meeting, in its own words. */
  const editor = getEditor()();
  const { brief } = $derived(editor.build);
  type TextKey = 'agency' | 'people' | 'mustHave' | 'keptEquipment' | 'habits' | 'growth';
  let refused = $state<Partial<Record<keyof Brief, string>>>({});

  /** Writes an answer down, or says why it cannot be. */
  function set(label: string, key: keyof Omit<Brief, 'constraints'>, value: unknown): void {
    const read = Brief.shape[key].safeParse(value);
    refused = { ...refused, [key]: read.success ? '' : (read.error.issues[0]?.message ?? 'not accepted') };
    if (read.success && JSON.stringify(read.data) !== JSON.stringify(brief[key]))
      editor.edit(`${label} in the brief`, (b) => changeBrief(b, { [key]: read.data }));
  }

  const REMARKS: readonly { key: TextKey; label: string; hint: string }[] = [
    {
      key: 'people',
      label: 'People around the vehicle',
      hint: 'People working around the parked vehicle, passing traffic.',
    },
    {
      key: 'mustHave',
      label: 'Must have, must not have',
      hint: 'In the agency’s words. Add checkable items as requirements.',
    },
    {
      key: 'keptEquipment',
      label: 'Equipment that stays',
      hint: 'Equipment that is kept or moved.',
    },
    {
      key: 'habits',
      label: 'Operator habits',
      hint: 'Switches, stages and sides that operators are used to.',
    },
    { key: 'growth', label: 'Growth', hint: 'Later equipment that needs room, outputs or current.' },
  ];
</script>

<section aria-label="Agency request">
  <h2>Agency request</h2>
  <div class="row">
    <TextInput
      size="sm"
      labelText="Agency"
      value={brief.agency}
      invalid={(refused.agency ?? '') !== ''}
      invalidText={refused.agency ?? ''}
      on:change={(event) => set('Agency', 'agency', String(event.detail ?? '').trim())}
    />
    <TextInput
      size="sm"
      labelText="Currency"
      value={brief.currency}
      invalid={(refused.currency ?? '') !== ''}
      invalidText={refused.currency ?? ''}
      on:change={(event) =>
        set(
          'Currency',
          'currency',
          String(event.detail ?? '')
            .trim()
            .toUpperCase(),
        )}
    />
  </div>
  <div class="row">
    <Select
      size="sm"
      labelText="Service"
      selected={editor.build.service}
      on:update={(event) => {
        const service = Service.safeParse(event.detail);
        if (service.success && service.data !== editor.build.service)
          editor.edit('Change the service', (b) => changeBuild(b, { service: service.data }));
      }}
    >
      {#each SERVICES as option (option)}<SelectItem value={option} text={serviceName[option]} />{/each}
    </Select>
    <Select
      size="sm"
      labelText="Duty"
      selected={brief.duty}
      on:update={(event) => set('Duty', 'duty', event.detail)}
    >
      {#each DUTIES as duty (duty)}<SelectItem value={duty} text={duty} />{/each}
    </Select>
  </div>
  <TextInput
    size="sm"
    labelText="Jurisdictions, separated by semicolons"
    value={brief.jurisdictions.join('; ')}
    invalid={(refused.jurisdictions ?? '') !== ''}
    invalidText={refused.jurisdictions ?? ''}
    on:change={(event) =>
      set(
        'Jurisdictions',
        'jurisdictions',
        String(event.detail ?? '')
          .split(';')
          .map((name) => name.trim())
          .filter((name) => name !== ''),
      )}
  />
  {#each REMARKS as { key, label, hint } (key)}
    <TextArea
      rows={2}
      labelText={label}
      placeholder={hint}
      value={brief[key]}
      invalid={(refused[key] ?? '') !== ''}
      invalidText={refused[key] ?? ''}
      on:change={(event) => {
        if (event.target instanceof HTMLTextAreaElement) set(label, key, event.target.value);
      }}
    />
  {/each}
</section>

<style>
  section {
    display: grid;
    gap: 0.6rem;
    align-content: start;
  }

  .row {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.75rem;
  }
</style>
