import { useQuery } from "@tanstack/react-query";
import { breedingQuery } from "@/api/queries";
import { isoDay } from "@/lib/shown/days";
import { Select } from "@/ui/controls";
import { useField } from "@/ui/editing/context";
import { Row } from "@/ui/fields/Row";

/** The system that a tank is like, or lives in. */
export function TankField({ path, none }: { path: string; none: string }) {
  const { entry, value, change } = useField(path);
  const tanks = useQuery(breedingQuery(isoDay(new Date()), null)).data?.tanks ?? [];
  const known = tanks.some(({ id }) => id === value);
  return (
    <Row label={entry.label} wide>
      <span className="max-w-[68%] min-w-0">
        <Select
          label={entry.label}
          value={known ? String(value) : "0"}
          options={[["0", none], ...tanks.map(({ id, name }): [string, string] => [String(id), name])]}
          onChange={(system) => change(Number(system))}
        />
      </span>
    </Row>
  );
}
