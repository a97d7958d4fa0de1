import type { SchemaDescription, SchemaFieldDescription, SchemaObjectDescription } from "yup";
import { EVENT_SCHEMA_VERSION, EVENT_TYPES, payloadSchemas } from "@/core/schemas";

const isObject = (field: SchemaFieldDescription): field is SchemaObjectDescription => "fields" in field;

/** Every type carries it; it is said once. */
const EVERYWHERE = "went_on";

const boundsOf = ({ tests }: SchemaDescription): string => {
  const at = (name: string) => tests.find((test) => test.name === name)?.params?.[name];
  const [least, most] = [at("min"), at("max")];
  if (typeof least === "number" && typeof most === "number") return ` ${least} to ${most}`;
  if (typeof least === "number") return ` from ${least}`;
  return typeof most === "number" ? ` up to ${most}` : "";
};

/** Keys whose schema depends on what is given. */
const EITHER: Readonly<Record<string, string>> = {
  rung: "a name, or a whole number",
  criterion: "the sentence, or the sentence with its limits",
};

/** What a key takes, in a few words. */
function words(field: SchemaFieldDescription, key = ""): string {
  if (field.type === "lazy") return EITHER[key] ?? "one of several";
  const given = field as SchemaDescription;
  if (isObject(field)) {
    const keys = Object.keys(field.fields);
    return keys.length === 0 ? "object" : `{ ${keys.join(", ")} }`;
  }
  if ("innerType" in field && field.innerType !== undefined && !Array.isArray(field.innerType))
    return `list of ${words(field.innerType as SchemaFieldDescription)}`;
  if (given.oneOf.length > 0)
    return given.oneOf
      .filter((word) => word !== null)
      .map((word) => (word === "" ? "empty" : String(word)))
      .join(", ");
  const whole = given.tests.some(({ name }) => name === "integer");
  if (given.type === "number") return `${whole ? "whole number" : "number"}${boundsOf(given)}`;
  if (given.type === "string") return given.tests.some(({ name }) => name === "matches") ? "UUID" : "text";
  return given.type === "boolean" ? "true or false" : given.type;
}

const needed = (field: SchemaFieldDescription) => "optional" in field && !(field as SchemaDescription).optional;

/** The page that says what each type of event carries, from the schemas that check them. */
export function eventsPage(): string {
  const rows = EVENT_TYPES.map((type) => {
    const { fields } = payloadSchemas[type].describe();
    const keys = Object.entries(fields)
      .filter(([key]) => key !== EVERYWHERE)
      .map(([key, field]) => `${needed(field) ? `**${key}**` : key}: ${words(field, key)}`);
    return `| ${type} | ${keys.length === 0 ? "nothing" : keys.join("; ")} |`;
  });
  return `# What events carry

Version ${EVENT_SCHEMA_VERSION} of the event schema. This page is written by \`npm run docs\` from the schemas in \`core/events\`, which also
check every event and give it its type; a test compares them. Keys in bold must be there. Any type may carry
\`${EVERYWHERE}\` (true: work went on in the silence after it). Keys that are not named here are kept with the event, at
most twenty of them, and read by nothing.

| type | payload |
|---|---|
${rows.join("\n")}
`;
}
