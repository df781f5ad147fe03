import { parseDate } from "@internationalized/date";
import { DateField, DateInput, DateSegment, type DateValue, Label } from "react-aria-components";
import styled from "styled-components";
import { fieldStyles } from "./fieldStyles";
import { Notes } from "./Notes";
import { segmentStyles } from "./segmentStyles";

const Box = styled(DateField)`
  ${fieldStyles}
  ${segmentStyles}
`;

interface Props {
  label: string;
  /** A day of the calendar: "2026-11-24". */
  value: string | null;
  onDay: (value: string | null) => void;
  problem?: string;
}

/** A day, written as the shop writes days; empty is null. */
export function DayBox({ label, value, onDay, problem }: Props) {
  const say = (next: DateValue | null) => onDay(next && next.toString().slice(0, 10));
  return (
    <Box value={value ? parseDate(value) : null} onChange={say} granularity="day" isInvalid={Boolean(problem)}>
      <Label>{label}</Label>
      <DateInput className="entry">{(segment) => <DateSegment segment={segment} />}</DateInput>
      <Notes problem={problem} />
    </Box>
  );
}
