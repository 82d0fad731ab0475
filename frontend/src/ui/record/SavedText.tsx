import { TextControl } from "./TextControl";
import { useField, type FieldName } from "./record";

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
  /** How to write it, or what it was taken for. */
  hint?: string;
  /** Words that may run over a line. */
  long?: boolean;
  /** Words of several lines. */
  lines?: boolean;
}

/** A text of the record. */
export function SavedText({ field, label, hint, long, lines }: Props) {
  const { id, names, value, wrong, save } = useField(field);
  return (
    <TextControl
      id={id}
      names={names}
      label={label}
      saved={String(value ?? "")}
      wrong={wrong}
      hint={hint}
      long={long ?? false}
      lines={lines ?? false}
      onSave={(text, was, at) => save(text, was, at)}
    />
  );
}

/**
 * A whole number of the record, typed; anything else is sent as it is, for the server to refuse. With `none` an
 * empty field is no number at all.
 */
export function SavedCount({ field, label, hint, none = false }: Props & { none?: boolean }) {
  const { id, names, value, save } = useField(field);
  return (
    <TextControl
      id={id}
      names={names}
      label={label}
      saved={String(value ?? "")}
      hint={hint}
      onSave={(text, was, at) =>
        // Where nothing was shown there was no number.
        save(asCount(text, none), was === undefined ? was : asCount(was, true), at)
      }
    />
  );
}

const asCount = (text: string, none = false) =>
  /^\s*\d+\s*$/.test(text) ? Number(text) : none && text.trim() === "" ? null : text;

/** A number of the record, typed; empty is none, anything else is sent as it is. */
export function SavedNumber({ field, label, hint }: Props) {
  const { id, names, value, save } = useField(field);
  return (
    <TextControl
      id={id}
      names={names}
      label={label}
      saved={String(value ?? "")}
      hint={hint}
      onSave={(text, was, at) => save(asNumber(text), was === undefined ? was : asNumber(was), at)}
    />
  );
}

const asNumber = (text: string) => {
  const plain = text.trim().replace(",", ".");
  return plain === "" ? null : /^\d*\.?\d+$/.test(plain) ? Number(plain) : text;
};
