import { createContext, useContext } from "react";

import type { Schemas } from "../../api/client";
import { useCatalogue } from "../../api/queries";

type Shapes = Schemas["PositionInput"] &
  Schemas["RailInput"] &
  Schemas["EquipmentInput"] &
  Schemas["TakeInInput"] &
  Schemas["FeasibilityInput"] &
  Schemas["ReadyMade"];

/** A field of any of the shapes of input. */
export type FieldName = keyof Shapes;

/** The record that the fields below belong to: how they read it and how they save. */
export interface RecordScope {
  /** Names the drafts in local storage; unique to the record. */
  id: string;
  /** The shape of input it is, as the catalogue names its choices and units: "position". */
  shape: string;
  /** What is saved, by field. */
  values: object;
  /** What each saved text was taken for, by field. */
  took?: Readonly<Record<string, string>>;
  /** Stands before a field's name where the server speaks of it: "module." */
  prefix?: string;
  /** Save some fields; the others stay. */
  save: (fields: Record<string, unknown>) => Promise<unknown>;
}

/** Gives fields their record. */
export const RecordContext = createContext<RecordScope | undefined>(undefined);

/** The record around a field. */
export function useRecord(): RecordScope {
  const scope = useContext(RecordContext);
  if (!scope) throw new Error("a field stands outside any record");
  return scope;
}

/** One field of the record: its saved value, its name for the server, its choices and its unit. */
export function useField(field: FieldName) {
  const record = useRecord();
  const catalogue = useCatalogue().data;
  const name = `${record.prefix ?? ""}${field}`;
  return {
    id: `${record.id}.${field}`,
    name,
    value: (record.values as Readonly<Record<string, unknown>>)[field],
    took: record.took?.[name],
    options: catalogue?.choices[`${record.shape}.${field}`],
    unit: catalogue?.units[`${record.shape}.${field}`],
    save: (value: unknown, also: Record<string, unknown> = {}) =>
      record.save({ [field]: value, ...also }),
  };
}
