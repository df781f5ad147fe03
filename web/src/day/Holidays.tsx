import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Choice } from "../shared/fields/Choice";
import { Asked, Button, Notice, Small } from "../shared/parts";
import { regionName } from "./calendar";
import { Row } from "./CalendarRow";

interface Props {
  closed: string[];
  onClose: () => void;
  onClosed: (dates: string[]) => void;
}

/** The days a country keeps, each taken for a closed day by the shop's own word. */
export function HolidaysDialog({ closed, onClose, onClosed }: Props) {
  const { format, shop } = useSession();
  const [region, setRegion] = useState<string | undefined>(undefined);
  const page = useQuery({ queryKey: ["holidays", region], queryFn: () => api.holidays(region), retry: false });
  const data = page.data;
  const here = data?.region ?? "";
  const regions = (data?.regions ?? []).map((id) => ({ id, text: regionName(id, shop.locale) }));
  const open = (data?.days ?? []).filter((day) => !closed.includes(day.date));
  return (
    <Dialog title="Holidays" onClose={onClose}>
      {!data && !page.error && <Small role="status">Looking…</Small>}
      {data && (
        <>
          <Choice
            label="Country or part of one"
            value={here}
            options={regions.sort((one, other) => one.text.localeCompare(other.text))}
            onPick={setRegion}
          />
          <Small>Days of the next twelve months. None is closed before you say so.</Small>
          {data.days.map((day) => (
            <Row key={day.date}>
              <span className="name">
                {format.weekdayOf(day.date)}, {format.day(day.date)} <Small>{day.name}</Small>
              </span>
              {closed.includes(day.date) ? (
                <Small>closed</Small>
              ) : (
                <Asked onPress={() => onClosed([...closed, day.date])} aria-label={`close that day: ${day.name}`}>
                  close that day
                </Asked>
              )}
            </Row>
          ))}
          {data.days.length === 0 && <p>No holidays are known there.</p>}
          <p style={{ display: "flex", gap: 12, marginTop: 16 }}>
            <Button $main onPress={onClose}>
              Done
            </Button>
            {open.length > 1 && (
              <Button onPress={() => onClosed([...closed, ...open.map((day) => day.date)])}>
                Close on all {open.length}
              </Button>
            )}
          </p>
        </>
      )}
      {page.error && (
        <Notice role="alert">
          <p>{page.error.message}</p>
        </Notice>
      )}
    </Dialog>
  );
}
