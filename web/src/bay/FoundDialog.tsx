import { useRef, useState } from "react";
import type { CardSheet, Mark } from "../api/client";
import { KINDS } from "../quote/vehicle/findings";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/fields/Field";
import { Notice, Small } from "../shared/parts";
import { mark } from "./offlineQueue";
import { Choices, Press } from "./parts";
import { drawnAnew } from "./picture";

interface Props {
  sheet: CardSheet;
  cylinder: number | null;
  press: (...marks: Mark[]) => void;
  onPicture: (id: string, data: string) => void;
  onClose: () => void;
}

type Kind = keyof typeof KINDS;

/** "Found something": what, where, in whose words, with a picture. The advisor gets it with what it would take. */
export function FoundDialog({ sheet, cylinder, press, onPicture, onClose }: Props) {
  const [kind, setKind] = useState<Kind>();
  const [at, setAt] = useState<number | null>(cylinder);
  const [words, setWords] = useState("");
  const [picture, setPicture] = useState<{ data: string } | null>(null);
  const [tell, setTell] = useState(true);
  const [problem, setProblem] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const take = async (taken: File | undefined) => {
    if (!taken) return;
    setProblem("");
    try {
      setPicture({ data: await drawnAnew(taken) });
    } catch {
      setProblem("That is no picture this tablet can read. Take it again.");
    }
  };
  const keep = () => {
    if (!kind) return;
    const id = crypto.randomUUID();
    if (picture) onPicture(id, picture.data);
    press(
      mark("found", {
        finding: kind,
        cylinder: at,
        words: words.trim(),
        ...(picture ? { picture: id, tell } : {}),
      }),
    );
    onClose();
  };
  return (
    <Dialog title="Found something" onClose={onClose} wide>
      <Choices role="group" aria-label="What is it?">
        {(Object.keys(KINDS) as Kind[]).map((code) => (
          <Press
            key={code}
            aria-pressed={kind === code}
            data-chosen={kind === code || undefined}
            onPress={() => setKind(code)}
            style={{ minHeight: 46, fontSize: 15 }}
          >
            {code === "other" ? "something else" : KINDS[code]}
          </Press>
        ))}
      </Choices>
      <Choices role="group" aria-label="At which cylinder?">
        {sheet.cylinders.map((number) => (
          <Press
            key={number}
            aria-pressed={at === number}
            data-chosen={at === number || undefined}
            onPress={() => setAt(at === number ? null : number)}
          >
            {number}
          </Press>
        ))}
        <Small style={{ alignSelf: "center" }}>{at === null ? "no cylinder" : `at cylinder ${at}`}</Small>
      </Choices>
      <Field label="In your words" value={words} onChange={setWords} maxLength={200} />
      <Choices style={{ alignItems: "center" }}>
        <input
          ref={file}
          type="file"
          accept="image/*"
          capture="environment"
          hidden
          onChange={(event) => void take(event.target.files?.[0])}
        />
        <Press onPress={() => file.current?.click()}>{picture ? "Another picture" : "Take a picture"}</Press>
        {picture && (
          <>
            <img
              src={`data:image/jpeg;base64,${picture.data}`}
              alt="What was found"
              style={{ height: 84, border: "1px solid var(--strong)" }}
            />
            <Press aria-pressed={tell} data-chosen={tell || undefined} onPress={() => setTell(!tell)}>
              {tell ? "The customer sees it" : "For the shop only"}
            </Press>
          </>
        )}
      </Choices>
      {problem && (
        <Notice role="alert">
          <p>{problem}</p>
        </Notice>
      )}
      <Press $main onPress={keep} isDisabled={!kind}>
        Put it on the card
      </Press>
    </Dialog>
  );
}
