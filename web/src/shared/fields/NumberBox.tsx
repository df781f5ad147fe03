import { useRef, useState } from "react";
import { Input, Label, NumberField, useLocale } from "react-aria-components";
import styled from "styled-components";
import { bareStyles, fieldStyles } from "./fieldStyles";
import { wellGrouped } from "./grouping";
import { Notes } from "./Notes";

const Box = styled(NumberField)<{ $bare?: boolean }>`
  ${fieldStyles}
  ${(p) => p.$bare && bareStyles}
`;

export interface NumberBoxProps {
  label: string;
  /** null where nothing is entered. */
  value: number | null;
  onValue: (value: number | null) => void;
  /** How many decimals are kept; as many as there are, where unsaid. */
  decimals?: number;
  /** Whether that many decimals are always shown, as money does. */
  fixed?: boolean;
  least?: number;
  /** Without groups of three: a year. */
  plain?: boolean;
  help?: string;
  problem?: string;
  placeholder?: string;
  /** In a table whose head says what it is. */
  bare?: boolean;
  className?: string;
  isDisabled?: boolean;
  isRequired?: boolean;
  autoFocus?: boolean;
}

/**
 * A figure, written as the shop writes figures. What could be read as another number is named and not taken; nothing
 * entered is null.
 */
export function NumberBox({ label, value, onValue, decimals, fixed, bare, ...rest }: NumberBoxProps) {
  const { least, plain, help, problem, placeholder, ...others } = rest;
  const { locale } = useLocale();
  const [refused, setRefused] = useState("");
  const typed = useRef("");
  const take = (next: number) => {
    if (wellGrouped(typed.current, locale)) onValue(Number.isNaN(next) ? null : next);
  };
  const look = (text: string) => {
    typed.current = text;
    const example = new Intl.NumberFormat(locale).format(9.5);
    setRefused(wellGrouped(text, locale) ? "" : `${text} was not taken: write decimals like ${example}.`);
  };
  const options = {
    maximumFractionDigits: decimals ?? 6,
    minimumFractionDigits: fixed ? decimals : 0,
    useGrouping: !plain,
  };
  const wrong = refused || problem;
  return (
    <Box
      {...others}
      $bare={bare}
      value={value ?? Number.NaN}
      minValue={least}
      onChange={take}
      commitBehavior="validate"
      validationBehavior="aria"
      formatOptions={options}
      isInvalid={Boolean(wrong)}
    >
      <Label>{label}</Label>
      <Input
        placeholder={placeholder}
        onBlurCapture={(event) => look(event.currentTarget.value)}
        onKeyDownCapture={(event) => event.key === "Enter" && look(event.currentTarget.value)}
      />
      <Notes help={help} problem={wrong} />
    </Box>
  );
}
