/** Writes the demo builds of `demo/builds/` from the edits a designer would make. */
import { readBuild, readRulePack } from '@flarik/core/rules/document';
import type { RulePack } from '@flarik/core/design/rulePack';
import { readFileSync, writeFileSync } from 'node:fs';
import { newBuild } from '@flarik/core/design/create';
import { setDisabled } from '@flarik/core/design/moduleEdits';
import { verify } from '@flarik/core/verification/prove';
import type { Service } from '@flarik/core/words/service';
import { ks12, ks13 } from './demoBuilds/causeway.ts';
import { coastWatch } from './demoBuilds/coastWatch.ts';
import { incidentCommand } from './demoBuilds/incidentCommand.ts';
import { shoreMedic } from './demoBuilds/shoreMedic.ts';
import * as programmes from './demoBuilds/programmes.ts';
import { all, type Edit } from './demoBuilds/sketch.ts';
import { tunnelPumper } from './demoBuilds/tunnelPumper.ts';
import { ferrySlip, liftBridgeCrew, lineMarking } from './demoBuilds/works.ts';

const demo = new URL('../demo/', import.meta.url);
const pack = (name: string): RulePack =>
  readRulePack(JSON.parse(readFileSync(new URL(`packs/${name}.json`, demo), 'utf8')));

const byLaw = pack('kestrel-sound');
/** Where the patrol cars drive it is the law on one side of the causeway alone. */
const byLawHere: RulePack = { ...byLaw, jurisdictions: ['Kestrel Sound'] };
const neighbour = pack('dunmarrow');
const form = pack('optical-power-form');
const limits = pack('flash-limits');
const shop = pack('slipway-shop');

interface Demo {
  readonly file: string;
  /** Last digits of its id. */
  readonly number: string;
  readonly name: string;
  readonly service: Service;
  readonly body: string;
  readonly packs: readonly RulePack[];
  readonly notes: string;
  readonly edit: Edit;
}

const DEMOS: readonly Demo[] = [
  {
    file: 'ks-12',
    number: '1200',
    name: 'Causeway patrol KS-12',
    service: 'police',
    body: 'mid-suv',
    packs: [byLawHere],
    notes: 'Side-split colours. A few honest mistakes are left in for the checks to find.',
    edit: all(ks12, programmes.patrolWithMistakes),
  },
  {
    file: 'ks-13',
    number: '1300',
    name: 'Causeway patrol KS-13',
    service: 'police',
    body: 'mid-suv',
    packs: [byLawHere],
    notes: 'The sister of KS-12 with all colours on both sides, and the mistakes put right.',
    edit: all(ks13, programmes.patrol),
  },
  {
    file: 'coast-watch',
    number: '2100',
    name: 'Coast watch, unmarked',
    service: 'police',
    body: 'large-suv',
    packs: [limits, shop],
    notes: 'Everything behind glass or under smoked lenses; unseen when off.',
    edit: all(coastWatch, programmes.unmarked),
  },
  {
    file: 'tunnel-pumper-3',
    number: '3300',
    name: 'Tunnel pumper 3',
    service: 'fire',
    body: 'pumper',
    packs: [form, limits],
    notes: 'Tall body, upper and lower levels by optical power, crew at the pump panel.',
    edit: all(tunnelPumper, programmes.pumper),
  },
  {
    file: 'shore-medic-7',
    number: '4700',
    name: 'Shore medic 7',
    service: 'ems',
    body: 'box-ambulance',
    packs: [limits, shop],
    notes: 'Rear loading with doors pinned open; old halogens replaced, the old beacon kept.',
    edit: all(shoreMedic, programmes.medic),
  },
  {
    file: 'incident-command',
    number: '5100',
    name: 'Incident command',
    service: 'fire',
    body: 'large-suv',
    packs: [limits, shop],
    notes: 'Green command light; a desk behind the hatch with red or white light.',
    edit: all(incidentCommand, programmes.command),
  },
  {
    file: 'lift-bridge-crew',
    number: '6200',
    name: 'Lift-bridge crew',
    service: 'road-work',
    body: 'pickup-canopy',
    packs: [limits, shop, neighbour],
    notes: 'Amber only; panels that must not be drilled; arrow in the canopy’s rear glass.',
    edit: all(liftBridgeCrew, programmes.canopy),
  },
  {
    file: 'line-marking',
    number: '7300',
    name: 'Line-marking truck',
    service: 'road-work',
    body: 'flat-bed',
    packs: [limits, shop],
    notes: 'Slow convoy: arrow board on a mast, crew walking behind.',
    edit: all(lineMarking, programmes.convoy),
  },
  {
    file: 'ferry-slip',
    number: '8100',
    name: 'Ferry-slip marshal van',
    service: 'utility',
    body: 'panel-van',
    packs: [limits, shop],
    notes: 'One old dash switch through relays; old beacons kept; spare positions.',
    edit: all(ferrySlip, programmes.oneSwitch),
  },
];

/** Colours that no function shows are ordered and not shown here. */
const withSpareDisabled: Edit = (build) =>
  verify(build)
    .findings.filter((f) => f.kind === 'unlit' && f.sentence.startsWith('No function shows'))
    .reduce((b, { evidence: { channels } }) => {
      const [first] = channels;
      const setup = b.placements
        .find((p) => p.id === first?.placementId)
        ?.modules.find((m) => m.id === first?.moduleId);
      const colour = setup?.colours[(first?.slot ?? 0) - 1];
      return colour === undefined ? b : setDisabled(b, channels, colour, true);
    }, build);

for (const { file, number, name, service, body, packs, notes, edit } of DEMOS) {
  const id = `0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c${number}`;
  const drawn = withSpareDisabled(edit(newBuild(id, name, service, [...packs], body)));
  const build = readBuild({ ...drawn, notes: `Made-up demo: Slipway Workshop, Kestrel Sound. ${notes}` });
  writeFileSync(new URL(`builds/${file}.json`, demo), `${JSON.stringify(build, null, 1)}\n`);
}
