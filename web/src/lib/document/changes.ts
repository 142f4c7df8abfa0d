import { withValue } from "./paths";

/** The content with changes made: whole lists first, then the values in them. */
export function withChanges<Content>(content: Content, changes: Record<string, unknown>): Content {
  const inOrder = Object.entries(changes).sort(([one], [other]) => depth(one) - depth(other));
  return inOrder.reduce((made, [path, value]) => withValue(made, path, value), content);
}

function depth(path: string): number {
  return path.split(".").length;
}
