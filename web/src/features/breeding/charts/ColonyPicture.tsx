import { Says } from "@/ui/figures/Says";
import { SectionDrawing } from "@/ui/section/SectionDrawing";
import { useVentureSheet } from "../context";

/** The colony full grown in its tank, to scale, and what that tank's own sheet says against it. */
export function ColonyPicture() {
  const section = useVentureSheet((sheet) => sheet.section);
  const refused = useVentureSheet((sheet) => sheet.refused) ?? [];
  const reckoned = useVentureSheet(() => true);
  if (!reckoned) return <p className="text-quiet">Reckoning…</p>;
  if (!section)
    return (
      <p className="max-w-prose text-quiet">
        Choose a tank: everything that it carries, costs and refuses is read from its own sheet.
      </p>
    );
  return (
    <>
      <SectionDrawing section={section} dimensions className="mb-2 max-h-[46vh] w-full" />
      {refused.length > 0 && (
        <div className="border-l-3 border-short pl-3 text-sm">
          <p className="font-semibold">Its own sheet refuses this colony. It is reckoned on all the same.</p>
          <ul>
            {refused.map((sentence, i) => (
              <li key={i}>
                <Says sentence={sentence} />
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}
