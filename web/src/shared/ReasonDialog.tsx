import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import { Dialog } from "./Dialog";
import { Field } from "./fields/Field";
import { Button, Notice, Small } from "./parts";

interface Props {
  title: string;
  /** What follows from it, before it is done. */
  follows: string;
  /** The word on the button. */
  act: string;
  placeholder: string;
  isPending: boolean;
  problem: Error | null;
  onAct: (reason: string) => void;
  onClose: () => void;
}

/** Something is taken back: what follows is said, and it is done with a reason or not at all. */
export function ReasonDialog({ title, follows, act, placeholder, isPending, problem, onAct, onClose }: Props) {
  const [reason, setReason] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (reason.trim() !== "") onAct(reason.trim());
  };
  return (
    <Dialog title={title} onClose={onClose}>
      <p style={{ marginBottom: 12 }}>
        <Small>{follows}</Small>
      </p>
      <Form onSubmit={submit}>
        <Field label="Why" value={reason} onChange={setReason} maxLength={200} placeholder={placeholder} autoFocus />
        {problem && (
          <Notice role="alert">
            <p>{problem.message}</p>
          </Notice>
        )}
        <p style={{ display: "flex", gap: 12, marginTop: 14 }}>
          <Button type="submit" $main isPending={isPending} isDisabled={reason.trim() === ""}>
            {act}
          </Button>
          <Button onPress={onClose}>Leave it as it is</Button>
        </p>
      </Form>
    </Dialog>
  );
}
