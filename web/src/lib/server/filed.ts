import type { Build } from '@flarik/core/design/schema';
import { pack } from './packed';

/** A build as it is stored. */
export interface Filed {
  readonly id: string;
  readonly name: string;
  readonly service: string;
  readonly bodyType: string;
  readonly jurisdictions: readonly string[];
  /** All of it, as JSON text. */
  readonly document: string;
  /** The document as a revision keeps it. */
  readonly packed: Buffer;
  /** Of the document, before it was packed. */
  readonly bytes: number;
}

/** Makes a build ready to be stored: before a transaction, which others may wait for. */
export async function fileBuild(build: Build): Promise<Filed> {
  const document = JSON.stringify(build);
  return {
    id: build.id,
    name: build.name,
    service: build.service,
    bodyType: build.vehicle.bodyType,
    jurisdictions: build.brief.jurisdictions,
    document,
    packed: await pack(document),
    bytes: Buffer.byteLength(document),
  };
}
