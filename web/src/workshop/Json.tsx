import { useState } from "react";
import { Field } from "../shared/fields/Field";

interface Props {
  label: string;
  value: unknown;
  problem?: string;
  onValue: (value: unknown) => void;
}

/** What has no field of its own, as it stands in the file. */
export function Json({ label, value, problem, onValue }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState("");
  const take = (next: string) => {
    setText(next);
    try {
      onValue(next.trim() === "" ? undefined : JSON.parse(next));
      setWrong("");
    } catch {
      setWrong("Not JSON yet: kept here until it is.");
    }
  };
  return (
    <Field
      className="wide"
      label={label}
      value={text ?? (value === undefined ? "" : JSON.stringify(value))}
      onChange={take}
      problem={wrong || problem}
    />
  );
}
