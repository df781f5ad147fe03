import { useState } from "react";
import type { Binding } from "./keys";

/**
 * One digit is a cylinder; 0 then a digit is a cylinder from 10 up, where there are that many.
 * @param label what pressing a cylinder's digit does
 */
export function useCylinderKeys(
  numbers: number[],
  press: (cylinder: number) => void,
  label: (cylinder: number) => string = (cylinder) => `Cylinder ${cylinder}`,
): Binding[] {
  const [tens, setTens] = useState(false);
  const many = numbers.some((number) => number >= 10);
  const typed = (digit: number) => {
    if (digit === 0 && !tens) {
      setTens(many);
      return;
    }
    const number = digit + (tens ? 10 : 0);
    setTens(false);
    if (numbers.includes(number)) press(number);
  };
  return Array.from({ length: 10 }, (_, digit) => digit)
    .filter((digit) => many || numbers.includes(digit))
    .map((digit) => ({
      key: String(digit),
      hint: String(digit),
      label: digit === 0 ? "Then a digit: cylinders 10 and up" : label(digit),
      run: () => typed(digit),
    }));
}

/** A letter that does something, shown as it is on the keyboard. */
export const letter = (key: string, label: string, run: () => void): Binding => ({
  key,
  hint: key.toUpperCase(),
  label,
  run,
});
