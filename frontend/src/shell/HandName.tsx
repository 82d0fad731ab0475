import { useState } from "react";

import { chooseName, chosenName, LONGEST_NAME } from "../saving/hand";
import { Field } from "../ui/Field";

/** The name that this device's changes carry in every lamp's log. */
export function HandName() {
  const [name, setName] = useState(chosenName);
  return (
    <Field
      label="Your name here"
      value={name}
      onChange={(text) => {
        const kept = text.slice(0, LONGEST_NAME);
        setName(kept);
        chooseName(kept);
      }}
      hint="It is beside what you do in every lamp's log. You undo your own steps."
      words
    />
  );
}
