import { bandSchema, type TargetBand } from '@vivid-beacon/core';

/** A target band written in an address; null for none, or one that cannot be read. */
export function readBand(text: string | undefined): TargetBand | null {
  if (!text) return null;
  try {
    return bandSchema.validateSync(JSON.parse(text));
  } catch {
    return null;
  }
}
