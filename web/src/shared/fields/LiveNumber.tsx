import { NumberParser } from "@internationalized/number";
import { useState } from "react";
import { Input, Label, TextField, useLocale } from "react-aria-components";
import styled from "styled-components";
import { bareStyles, fieldStyles } from "./fieldStyles";
import { wellGrouped } from "./grouping";
import { Notes } from "./Notes";

const Box = styled(TextField)<{ $bare?: boolean }>`
  ${fieldStyles}
  ${(p) => p.$bare && bareStyles}
  input {
    font-variant-numeric: tabular-nums;
  }
`;

interface Props {
  label: string;
  value: number | null;
  onValue: (value: number | null) => void;
  /** Where it is left, or Enter is pressed. */
  onDone?: () => void;
  bare?: boolean;
  problem?: string;
  help?: string;
  className?: string;
  isDisabled?: boolean;
}

/**
 * A figure that is taken with every key, as the shop writes figures. What cannot be read yet stays in the field and is
 * named when the field is left.
 */
export function LiveNumber({ label, value, onValue, onDone, bare, problem, help, ...rest }: Props) {
  const { locale } = useLocale();
  const [text, setText] = useState<string | null>(null);
  const [refused, setRefused] = useState("");
  const written = value === null ? "" : new Intl.NumberFormat(locale, { maximumFractionDigits: 6 }).format(value);
  const read = (typed: string) => new NumberParser(locale, { style: "decimal" }).parse(typed);
  const fits = (typed: string) => !Number.isNaN(read(typed)) && wellGrouped(typed, locale);
  const take = (typed: string) => {
    setText(typed);
    setRefused("");
    if (typed.trim() === "") onValue(null);
    else if (fits(typed)) onValue(read(typed));
  };
  const leave = () => {
    if (text !== null && text.trim() !== "" && !fits(text)) setRefused(`${text} is no figure.`);
    setText(null);
    onDone?.();
  };
  const wrong = refused || problem;
  return (
    <Box
      {...rest}
      $bare={bare}
      value={text ?? written}
      onChange={take}
      onFocus={() => setText(written)}
      onBlur={leave}
      isInvalid={Boolean(wrong)}
      validationBehavior="aria"
    >
      <Label>{label}</Label>
      <Input inputMode="decimal" onKeyDown={(event) => event.key === "Enter" && onDone?.()} />
      <Notes help={help} problem={wrong} />
    </Box>
  );
}
