import { createContext, useContext } from "react";

import type { Schemas } from "../../api/client";
import { useCatalogue } from "../../api/queries";
import type { FromField } from "../../saving/saves";

type Shapes = Schemas["PositionInput"] &
  Schemas["NewRail"] &
  Schemas["EquipmentInput"] &
  Schemas["TakeInInput"] &
  Schemas["FeasibilityInput"] &
  Schemas["ReadyMade"] &
  Schemas["Beside"] &
  Schemas["LooksInput"] &
  Schemas["DimInput"] &
  Schemas["FittedInput"] &
  Schemas["PhotoOut"] &
  Schemas["PartInput"] &
  Schemas["BenchLedInput"] &
  Schemas["ShopAnswer"];

/** A field of any of the shapes of input. */
export type FieldName = keyof Shapes & string;

type Fields = Record<string, unknown>;

/** Save some fields; the others stay. `was` is what the typist saw in them. */
export type SaveFields = (fields: Fields, was?: Fields, field?: FromField) => Promise<unknown>;

/** The record that the fields below belong to: how they read it and how they save. */
export interface RecordScope {
  /** Names the drafts; unique to the record. */
  id: string;
  /** The shape of input it is, as the catalogue names its choices and units: "position". */
  shape: string;
  /** What is saved, by field. */
  values: object;
  /** What each saved text was taken for, by field. */
  echo?: Readonly<Record<string, string>>;
  /** What is kept and cannot be read, as it was typed and with the question. */
  unread?: readonly Schemas["Unread"][];
  /** Stands before a field's name where the server speaks of it: "module." */
  prefix?: string;
  save: SaveFields;
}

/** Gives fields their record. */
export const RecordContext = createContext<RecordScope | undefined>(undefined);

/** The record around a field. */
export function useRecord(): RecordScope {
  const scope = useContext(RecordContext);
  if (!scope) throw new Error("a field stands outside any record");
  return scope;
}

/** Save fields that stand within a part of the record. */
export const within =
  (part: string, save: SaveFields): SaveFields =>
  (fields, was, field) =>
    save({ [part]: fields }, was && { [part]: was }, field);

/** What is kept in a field and cannot be read; nothing where it can. */
export const unreadOf = (record: RecordScope, name: string) =>
  record.unread?.find((u) => u.field === name);

/** One field of the record: its saved value, its names for the server, its choices and its unit. */
export function useField(field: FieldName) {
  const record = useRecord();
  const catalogue = useCatalogue().data;
  const name = `${record.prefix ?? ""}${field}`;
  const value = (record.values as Readonly<Record<string, unknown>>)[field];
  const unread = unreadOf(record, name);
  return {
    id: `${record.id}.${field}`,
    name,
    names: [name, field],
    // A text that no longer reads stands in its field as it was typed.
    value: unread && typeof value === "string" ? unread.text : value,
    wrong: unread?.message,
    echo: record.echo?.[name],
    options: catalogue?.choices[`${record.shape}.${field}`],
    unit: catalogue?.units[`${record.shape}.${field}`],
    save: (value: unknown, was: unknown, at: FromField, also: Fields = {}) =>
      record.save(
        { [field]: value, ...also },
        was === undefined ? undefined : { [field]: was },
        at,
      ),
  };
}
