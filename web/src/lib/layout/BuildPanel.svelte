<script lang="ts">
  import { changeBuild } from '@flarik/core/design/moduleEdits';
  import { Service, serviceName, SERVICES } from '@flarik/core/words/service';
  import { Name } from '@flarik/core/words/names';
  import { Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import RemarkField from '$lib/ui/RemarkField.svelte';

  /** What is shown when no lamp is selected: what to do, and what the build is called. */
  const editor = getEditor()();

  function rename(text: string): void {
    const name = Name.safeParse(text.trim());
    if (name.success) editor.edit('Rename the build', (b) => changeBuild(b, { name: name.data }));
  }
</script>

<h2>Nothing selected</h2>
<p class="quiet">
  {editor.build.placements.length === 0
    ? 'Start with the catalogue on the left: drag a fixture onto the vehicle, or choose it and a zone.'
    : 'Select a lamp on the drawing to move, aim, colour and group it. Hold Shift to choose more.'}
</p>
<TextInput
  size="sm"
  labelText="Name of the build"
  value={editor.build.name}
  on:change={(event) => rename(String(event.detail ?? ''))}
/>
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
<RemarkField
  label="Notes on the build"
  placeholder="Agreements and open questions."
  value={editor.build.notes}
  onset={(notes: string) => editor.edit('Notes on the build', (b) => changeBuild(b, { notes }))}
/>
