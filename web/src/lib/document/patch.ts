/** What turns one answer into the next: parts by name or place, or another value altogether. */
export type Patch = { p: Record<string, Patch> } | { v: unknown };

/** The next answer; what is the same stays the same object, so that only what changed is drawn anew. */
export function patched(old: unknown, patch: Patch | null): unknown {
  if (patch === null) return old;
  if ("v" in patch) return patch.v;
  if (Array.isArray(old)) {
    const made: unknown[] = [...(old as unknown[])];
    for (const [at, part] of Object.entries(patch.p)) made[Number(at)] = patched(made[Number(at)], part);
    return made;
  }
  const made = { ...(old as Record<string, unknown>) };
  for (const [name, part] of Object.entries(patch.p)) made[name] = patched(made[name], part);
  return made;
}
