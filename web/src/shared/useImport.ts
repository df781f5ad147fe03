import { useState } from "react";
import { readText } from "./readText";

const LARGEST = 3_000_000;

interface Step {
  reset: () => void;
  error: Error | null;
}

/**
 * A table from a file, in two steps: what its rows would change, then a yes.
 * @param report what is asked for each text that was read
 * @param keep the yes
 * @param tooLarge what to do about a file that is too large
 */
export function useImport(report: Step & { ask: (text: string) => void }, keep: Step, tooLarge: string) {
  const [csv, setCsv] = useState("");
  const [name, setName] = useState("");
  const [unread, setUnread] = useState("");
  const read = async (file: File) => {
    report.reset();
    keep.reset();
    const { text = "", unread: wrong = "" } = await readText(file, LARGEST, tooLarge);
    setName(file.name);
    setUnread(wrong);
    setCsv(text);
    if (!wrong) report.ask(text);
  };
  const problem = unread || (keep.error ?? report.error)?.message;
  return { csv, name, read, problem };
}
