export {
  classOfSign,
  dangerOfChoice,
  namesFor,
  SIGN_CLASSES,
  SIGN_KINDS,
  SIGNS,
  type SignClass,
  type SignKind,
  stopsWork,
  THREAT_IN_REACH,
} from "./table";
