export {
  asTyped,
  DEFAULT_SETTINGS,
  fromTyped,
  SETTING_FIELDS,
  SETTING_KEYS,
  type SettingField,
  type SettingKey,
  settingProblem,
  settingsFrom,
  type YardSettings,
} from "./registry";
export { settingsSchema } from "./schema";
