<script lang="ts">
  import { moneyText } from '@flarik/core/rules/brief/words';
  import { effectOf, exchanged, exchangeMisfit } from '@flarik/core/arrange/exchange';
  import type { Placement } from '@flarik/core/design/placement';
  import { rollToFit } from '@flarik/core/resolve/place';
  import { zoneOf } from '@flarik/core/vehicle/vehicle';
  import { Button, Select, SelectItem } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';

  /** Another fixture in a lamp's place, or the lamp on another zone; what that changes is told before. */
  let { placement }: { placement: Placement } = $props();
  const editor = getEditor()();
  let chosen = $state.raw<{
    readonly of: string;
    readonly fixtureId: string;
    readonly zoneId: string;
  } | null>(null);

  /** What was chosen for this lamp, as long as undo or another body has not taken it away. */
  const isThere = $derived(
    chosen?.of === placement.id &&
      editor.lookup.fixtures.some(({ id }) => id === chosen?.fixtureId) &&
      editor.vehicle.zones.some(({ id }) => id === chosen?.zoneId),
  );
  const now = $derived(
    isThere && chosen !== null
      ? chosen
      : { of: placement.id, fixtureId: placement.fixtureId, zoneId: placement.zoneId },
  );
  const fixture = $derived(editor.lookup.fixture(now.fixtureId));
  const zones = $derived(editor.vehicle.zones.filter((zone) => rollToFit(fixture, zone) !== null));
  const fixtures = $derived(
    editor.lookup.fixtures
      .filter((f) => rollToFit(f, zoneOf(editor.vehicle, now.zoneId)) !== null)
      .toSorted((a, b) => a.name.localeCompare(b.name)),
  );
  const isSame = $derived(now.fixtureId === placement.fixtureId && now.zoneId === placement.zoneId);
  const why = $derived(isSame ? null : exchangeMisfit(editor.build, placement.id, now));
  const after = $derived(isSame || why !== null ? null : exchanged(editor.build, placement.id, now));
  const effect = $derived(after === null ? null : effectOf(editor.build, after, placement.id));
  const figure = new Intl.NumberFormat(undefined, { maximumFractionDigits: 1, signDisplay: 'exceptZero' });
  const changes = $derived(
    effect === null
      ? []
      : [
          `${effect.costMinor > 0 ? '+' : ''}${moneyText(effect.costMinor, editor.build.brief.currency)}`,
          `${figure.format(effect.installMinutes / 60)} h to fit`,
          `${figure.format(effect.holes)} holes`,
          effect.leadDays[0] === effect.leadDays[1]
            ? 'the same wait for parts'
            : `last part in ${effect.leadDays[1]} days, not ${effect.leadDays[0]}`,
        ],
  );

  function apply(): void {
    const to = { fixtureId: now.fixtureId, zoneId: now.zoneId };
    const moves = to.fixtureId === placement.fixtureId;
    editor.edit(`${moves ? 'Move' : 'Exchange'} ${placement.label}`, (b) => exchanged(b, placement.id, to));
    chosen = null;
  }
</script>

<details>
  <summary>Exchange or move</summary>
  <div class="exchange">
    <Select
      size="sm"
      labelText="Exchange for"
      selected={now.fixtureId}
      on:update={(event) => (chosen = { ...now, fixtureId: String(event.detail) })}
    >
      {#each fixtures as f (f.id)}<SelectItem value={f.id} text={f.name} />{/each}
    </Select>
    <Select
      size="sm"
      labelText="Move to zone"
      selected={now.zoneId}
      on:update={(event) => (chosen = { ...now, zoneId: String(event.detail) })}
    >
      {#each zones as zone (zone.id)}<SelectItem value={zone.id} text={zone.name} />{/each}
    </Select>
    {#if why !== null}
      <p class="small" role="alert">{why}.</p>
    {:else if effect !== null}
      <p class="small" role="status">
        {changes.join(', ')}.
        {#if effect.lost.length > 0}<strong>Lost settings {effect.lost.join(', ')}.</strong>{/if}
        {#if placement.partnerId !== null}The counterpart follows.{/if}
      </p>
      <Button size="small" kind="tertiary" on:click={apply}>Apply</Button>
    {/if}
  </div>
</details>

<style>
  .exchange {
    display: grid;
    gap: 0.5rem;
    padding-top: 0.4rem;
  }

  summary {
    font-size: 12.5px;
    cursor: pointer;
  }

  .small {
    font-size: 12px;
    line-height: 1.4;
  }
</style>
