import * as yup from "yup";
import { record } from "../checks/common";
import { recordOf } from "../typed";
import { SETTING_FIELDS, SETTING_KEYS, type SettingField, type SettingKey, settingProblem } from "./registry";

const schemaOf = (key: SettingKey) => {
  const { label, share }: SettingField = SETTING_FIELDS[key];
  return yup
    .number()
    .typeError(`${label}: a number is needed.`)
    .required(`${label}: a number is needed.`)
    .test(
      "bounds",
      ({ value }) => `${label}: ${settingProblem(key, share ? value * 100 : value) ?? ""}`,
      (value) => (value === undefined ? true : settingProblem(key, share ? value * 100 : value) === null),
    );
};

/** All thresholds as they are sent: every one of them, by its name, and none that is not known. */
export const settingsSchema = record(recordOf(SETTING_KEYS, schemaOf));
