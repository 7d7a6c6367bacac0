import { z } from 'zod';
import { migrate, packOfBefore } from '../design/migrate.ts';
import { RULE_PACK_FORMAT, RulePack, type RuleData } from '../design/rulePack.ts';
import { Build, BUILD_FORMAT, SCHEMA_VERSION } from '../design/schema.ts';
import { InputError, parseInput, pathText } from '../words/errors.ts';
import { parseJson } from '../words/json.ts';
import { requirementKindOf } from './brief/requirements.ts';
import { refuseTooLarge } from './documentSize.ts';
import { kindOf } from './registry.ts';

/**
 * Reads a build from outside data of any known schema version, with every rule and wish in it.
 * @throws {InputError} what is wrong and where
 */
export function readBuild(data: unknown): Build {
  const head = BuildHead.safeParse(data);
  if (!head.success || head.data.format !== BUILD_FORMAT)
    throw new InputError('format', `this is not a Flarik build: 'format' must be '${BUILD_FORMAT}'`);
  const version = head.data.schemaVersion;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    throw new InputError('schemaVersion', 'must be a whole number from 1');
  if (version > SCHEMA_VERSION)
    throw new InputError(
      'schemaVersion',
      `the build was written by a newer Flarik (schema ${version}); this one reads up to ${SCHEMA_VERSION}`,
    );
  refuseTooLarge(data);
  const now = migrate(data, version);
  const kinds = KindsOfBuild.parse(now);
  nameUnknownKinds(kinds.brief.constraints, requirementKindOf, ['brief', 'constraints']);
  for (const [i, pack] of kinds.rulePacks.entries())
    nameUnknownKinds(pack.rules, kindOf, ['rulePacks', i, 'rules']);
  const build = parseInput(Build, now);
  for (const [i, wish] of build.brief.constraints.entries())
    readKind(requirementKindOf, wish, ['brief', 'constraints', i]);
  for (const [i, pack] of build.rulePacks.entries()) readRules(pack.rules, ['rulePacks', i, 'rules']);
  return build;
}

/**
 * Reads a build file's text.
 * @throws {InputError} too large, not JSON, or not a build
 */
export const readBuildText = (text: string): Build => readBuild(parseJson(text, 'build file'));

/**
 * Reads a rule pack from outside data, with every rule in it.
 * @throws {InputError} what is wrong and where
 */
export function readRulePack(data: unknown): RulePack {
  const head = PackHead.safeParse(data);
  if (!head.success)
    throw new InputError('format', `this is not a Flarik rule pack: 'format' must be '${RULE_PACK_FORMAT}'`);
  nameUnknownKinds(KindsOfPack.parse(data).rules, kindOf, ['rules']);
  const pack = parseInput(RulePack, packOfBefore(head.data));
  readRules(pack.rules, ['rules']);
  return pack;
}

const BuildHead = z.looseObject({ format: z.unknown().optional(), schemaVersion: z.unknown().optional() });
const PackHead = z.looseObject({ format: z.literal(RULE_PACK_FORMAT) });
const Kinds = z.array(z.looseObject({ kind: z.unknown() })).catch([]);
const KindsOfPack = z.looseObject({ rules: Kinds }).catch({ rules: [] });
const KindsOfBuild = z
  .looseObject({
    brief: z.looseObject({ constraints: Kinds }).catch({ constraints: [] }),
    rulePacks: z.array(KindsOfPack).catch([]),
  })
  .catch({ brief: { constraints: [] }, rulePacks: [] });

/** A kind that nobody knows is named before anything else that is wrong with it. */
function nameUnknownKinds(
  items: readonly { readonly kind: unknown }[],
  find: (data: { kind: string }) => unknown,
  path: PropertyKey[],
): void {
  for (const [i, { kind }] of items.entries()) {
    if (typeof kind !== 'string') continue;
    try {
      find({ kind });
    } catch (error) {
      if (error instanceof RangeError) throw new InputError(pathText([...path, i, 'kind']), error.message);
      throw error;
    }
  }
}

function readRules(rules: readonly RuleData[], path: PropertyKey[]): void {
  for (const [i, rule] of rules.entries()) {
    readKind(kindOf, rule, [...path, i]);
    if (rule.when !== null && !kindOf(rule).asksWhen)
      throw new InputError(
        pathText([...path, i, 'when']),
        `a rule of kind '${rule.kind}' applies in every state and takes no condition`,
      );
  }
}

/** Reads what depends on the kind, which is known by now; the document keeps the data as it came. */
function readKind<D extends { readonly kind: string }>(
  kindOfData: (data: D) => { readonly schema: z.ZodType },
  data: D,
  path: PropertyKey[],
): void {
  const issue = kindOfData(data).schema.safeParse(data).error?.issues[0];
  if (issue !== undefined) throw new InputError(pathText([...path, ...issue.path]), issue.message);
}
