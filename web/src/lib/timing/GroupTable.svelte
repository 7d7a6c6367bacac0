<script lang="ts">
  import { speedNumber } from '@flarik/core/timing/recipes/speed';
  import { changeGroup, groupFailure } from '@flarik/core/design/timingEdits';
  import type { Group } from '@flarik/core/design/timing';
  import { SYNC_LINES } from '@flarik/core/fixture/flasher';
  import { mayFollow, timeOf } from '@flarik/core/timing/clock';
  import { driftOf, freeRunReason } from '@flarik/core/timing/step';
  import { getEditor } from '$lib/editor/context';

  /** The clocks: what follows what, how fast, how much later, and which heads cannot follow. */
  const editor = getEditor()();
  const { groups } = $derived(editor.build.timing);
  let problem = $state('');

  const rows = $derived(
    groups.map((group) => {
      const lamps = editor.build.placements.filter((p) => p.modules.some((m) => m.groupId === group.id));
      const free = lamps.flatMap((p) => {
        const fixture = editor.lookup.fixture(p.fixtureId);
        const why = freeRunReason(fixture, group.clock);
        return why === null ? [] : [{ p, why, flasher: fixture.flasher }];
      });
      const cycle = editor.drives.find((d) => d.groupId === group.id)?.cycleMs ?? 1000;
      return { group, lamps, free, cycle, time: timeOf(groups, group.id) };
    }),
  );

  function change(group: Group, patch: Partial<Omit<Group, 'id'>>): void {
    const wanted = {
      ...editor.build,
      timing: {
        ...editor.build.timing,
        groups: groups.map((g) => (g.id === group.id ? { ...g, ...patch } : g)),
      },
    };
    const failure = groupFailure(wanted, group.id);
    problem = failure === null ? '' : `${group.name}: ${failure}. Nothing was changed.`;
    editor.edit(`Clock of ${group.name}`, (b) => changeGroup(b, group.id, patch));
  }

  const whole = (event: Event & { currentTarget: HTMLInputElement }, min: number, max: number): number => {
    const n = Math.min(max, Math.max(min, Math.round(event.currentTarget.valueAsNumber || min)));
    event.currentTarget.valueAsNumber = n;
    return n;
  };
</script>

<div class="scroller">
  {#if problem !== ''}<p role="alert" class="problem">{problem}</p>{/if}
  <table>
    <caption class="visually-hidden">The clocks of the sync groups</caption>
    <thead>
      <tr>
        <th scope="col">Sync group</th>
        <th scope="col">Follows the clock of</th>
        <th scope="col">Speed</th>
        <th scope="col">Delay</th>
        <th scope="col">Clock connection</th>
        <th scope="col">Free-running heads</th>
      </tr>
    </thead>
    <tbody>
      {#each rows as { group, lamps, free, cycle, time } (group.id)}
        <tr>
          <th scope="row">
            {group.name}
            <span class="quiet sub">{lamps.length === 1 ? '1 lamp' : `${lamps.length} lamps`}</span>
          </th>
          <td>
            <select
              aria-label="{group.name} follows the clock of"
              value={group.followsId ?? ''}
              onchange={(event) =>
                change(group, {
                  followsId: event.currentTarget.value === '' ? null : event.currentTarget.value,
                })}
            >
              <option value="">none: separate clock</option>
              {#each groups.filter((g) => g.id !== group.id && mayFollow(groups, group.id, g.id)) as other (other.id)}
                <option value={other.id}>{other.name}</option>
              {/each}
            </select>
          </td>
          <td>
            <input
              type="number"
              min="10"
              max="400"
              step="5"
              aria-label="Speed of {group.name}, percent"
              value={group.speedPercent}
              onchange={(event) => change(group, { speedPercent: whole(event, 10, 400) })}
            />
            %
            {#if group.followsId !== null && speedNumber(time.speed) * 100 !== group.speedPercent}
              <span class="quiet sub">total {Math.round(speedNumber(time.speed) * 1000) / 10} %</span>
            {/if}
          </td>
          <td>
            <input
              type="number"
              min="0"
              max="60000"
              step="10"
              aria-label="{group.name}, delay, ms"
              value={group.offsetMs}
              onchange={(event) => change(group, { offsetMs: whole(event, 0, 60_000) })}
            /> ms
          </td>
          <td>
            {#each SYNC_LINES as line (line)}
              <label>
                <input
                  type="checkbox"
                  checked={group.clock.lines.includes(line)}
                  onchange={(event) =>
                    change(group, {
                      clock: {
                        ...group.clock,
                        lines: SYNC_LINES.filter((l) =>
                          l === line ? event.currentTarget.checked : group.clock.lines.includes(l),
                        ),
                      },
                    })}
                />
                {line}
              </label>
            {/each}
            <select
              aria-label="Voltage of {group.name}"
              value={String(group.clock.volts)}
              onchange={(event) =>
                change(group, {
                  clock: { ...group.clock, volts: event.currentTarget.value === '24' ? 24 : 12 },
                })}
            >
              <option value="12">12 V</option>
              <option value="24">24 V</option>
            </select>
          </td>
          <td>
            <label>
              <input
                type="checkbox"
                checked={group.mustKeepStep}
                onchange={(event) => change(group, { mustKeepStep: event.currentTarget.checked })}
              /> must be synchronised
            </label>
            {#each free as { p, why, flasher } (p.id)}
              {@const drift = flasher === null ? null : driftOf(cycle, flasher.tolerancePercent)}
              <button class="link" onclick={() => editor.select([p.id])}
                >≈ {p.label}: {why}{drift === null
                  ? ''
                  : `; up to ${drift.msPerCycle.toFixed(0)} ms a cycle, round in ${Math.round(drift.roundS)} s`}</button
              >
            {:else}
              <span class="good">✓ all can follow</span>
            {/each}
          </td>
        </tr>
      {:else}
        <tr
          ><td colspan="6" class="quiet"
            >No sync groups yet. Select lamps on the drawing and assign a group in the inspector.</td
          ></tr
        >
      {/each}
    </tbody>
  </table>
</div>

<style>
  .scroller {
    overflow: auto;
    height: 100%;
    min-height: 0;
  }

  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 12.5px;
  }

  th,
  td {
    padding: 0.3rem 0.4rem;
    border-bottom: 1px solid var(--cds-ui-03);
    text-align: left;
    vertical-align: top;
  }

  thead th {
    position: sticky;
    top: 0;
    background: var(--cds-ui-background);
    color: var(--cds-text-02);
    font-weight: 400;
  }

  td:nth-child(3),
  td:nth-child(4) {
    white-space: nowrap;
  }

  .sub {
    display: block;
    font-size: 11px;
    font-weight: 400;
  }

  label {
    display: flex;
    gap: 0.3rem;
    align-items: center;
    font-size: 12px;
    white-space: nowrap;
  }

  select,
  input[type='number'] {
    height: 26px;
    font-size: 12px;
  }

  input[type='number'] {
    width: 4.2rem;
  }

  .link {
    display: block;
  }

  .good {
    color: var(--good);
    font-size: 12px;
  }

  .problem {
    color: var(--gap);
    padding: 0.3rem 0.5rem;
    font-size: 13px;
  }
</style>
