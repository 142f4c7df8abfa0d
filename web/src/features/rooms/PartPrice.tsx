import type { Room } from "@/api/client";
import { NumberBox } from "@/ui/fields/NumberBox";
import { parsed } from "@/lib/quantity";
import { useRoom, useRoomInUse } from "./context";

/** What one of a part costs; the room keeps it under the part's words. */
export function PartPrice({ part }: { part: string }) {
  const { session } = useRoomInUse();
  const price = useRoom((room) => room.prices?.find(({ priced_part }) => priced_part === part)?.price_money);
  const enter = (text: string) => {
    const room = session.state.content;
    const others = (room.prices ?? []).filter(({ priced_part }) => priced_part !== part);
    const value = text.trim() === "" ? null : (parsed(text) ?? text);
    const prices = value === null ? others : [...others, { priced_part: part, price_money: value }];
    session.replace({ ...room, prices } as Room);
  };
  return (
    <NumberBox
      label={`Price of one: ${part}`}
      shown={price == null ? "" : String(price)}
      type={enter}
      narrow
    />
  );
}
