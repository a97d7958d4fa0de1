import { type ComponentProps, type ReactNode, useId } from "react";

/** How a control is labelled: the label stands above it, in the usual size or a small one. */
interface Labelled {
  readonly label: ReactNode;
  readonly small?: boolean;
  /** Classes of the whole, such as the columns it takes. */
  readonly className?: string;
}

/** A label with its control under it. */
function Under({ id, label, small = false, className = "", children }: Labelled & { readonly id: string; readonly children: ReactNode }) {
  return (
    <div className={`flex min-w-0 flex-col ${small ? "text-sm" : ""} ${className}`}>
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      {children}
    </div>
  );
}

/** One thing that can be chosen; a bare text is its own value. */
export type Option<Value extends string = string> = Value | { readonly value: Value; readonly label: ReactNode };

/** What is chosen with an option. */
type ValueOf<One> = One extends string ? One : One extends { readonly value: infer Value extends string } ? Value : never;

const optionValue = (option: Option): string => (typeof option === "string" ? option : option.value);

/** Things of the yard as what can be chosen. */
export const named = (list: readonly { readonly id: string; readonly name: string }[]): readonly Option[] =>
  list.map(({ id, name }) => ({ value: id, label: name }));

/** The rows of a choice. */
export function Options({ options, empty }: { readonly options: readonly Option[]; readonly empty?: string }) {
  return (
    <>
      {empty !== undefined && <option value="">{empty}</option>}
      {options.map((option) => {
        const value = optionValue(option);
        return (
          <option key={value} value={value}>
            {typeof option === "string" ? option : option.label}
          </option>
        );
      })}
    </>
  );
}

/** One of several, chosen from a list. It is used by its value, or spread with what a form registers. */
export function Choice<const One extends Option, Empty extends string | undefined = undefined>({
  label,
  small,
  className,
  options,
  empty,
  width = "",
  onChosen,
  ...rest
}: Labelled & {
  readonly options: readonly One[];
  /** What stands where nothing is chosen; left out where something always is. */
  readonly empty?: Empty;
  readonly width?: string;
  /** Told what was chosen; an empty text where nothing is. */
  readonly onChosen?: (value: ValueOf<One> | (Empty extends string ? "" : never)) => void;
} & Omit<ComponentProps<"select">, "children" | "className">) {
  const own = useId();
  const id = rest.id ?? own;
  const choose = (text: string) => {
    // Nothing else than what stands in the list, or nothing at all, comes out of it.
    if (text === "" || options.some((option) => optionValue(option) === text)) onChosen?.(text as ValueOf<One>);
  };
  return (
    <Under id={id} label={label} small={small} className={className}>
      <select
        {...rest}
        id={id}
        {...(onChosen === undefined ? {} : { onChange: (event) => choose(event.target.value) })}
        className={`field-box mt-1 ${width}`}
      >
        <Options options={options} empty={empty} />
      </select>
    </Under>
  );
}

type Typed = Labelled & {
  /** Whether what is typed will not do. */
  readonly bad?: boolean;
  readonly width?: string;
  readonly onTyped?: (text: string) => void;
} & Omit<ComponentProps<"input">, "className">;

/** A line of text. */
export function TextBox({ label, small, className, bad = false, width = "", onTyped, ...rest }: Typed) {
  const own = useId();
  const id = rest.id ?? own;
  return (
    <Under id={id} label={label} small={small} className={className}>
      <input
        {...rest}
        id={id}
        {...(onTyped === undefined ? {} : { onChange: (event) => onTyped(event.target.value) })}
        aria-invalid={bad || rest["aria-invalid"] === true}
        className={`field-box mt-1 ${width} ${bad ? "border-brick" : ""}`}
      />
    </Under>
  );
}

/** A number as it is typed, with its unit beside it. */
export function NumberBox({
  label,
  small,
  className,
  unit,
  help,
  bad = false,
  width = "w-24",
  onTyped,
  ...rest
}: Typed & { readonly unit?: string; readonly help?: ReactNode }) {
  const own = useId();
  const id = rest.id ?? own;
  const box = (
    <input
      inputMode="decimal"
      {...rest}
      id={id}
      {...(onTyped === undefined ? {} : { onChange: (event) => onTyped(event.target.value) })}
      aria-invalid={bad || rest["aria-invalid"] === true}
      className={`field-box figures ${unit === undefined ? "mt-1" : ""} ${width} ${bad ? "border-brick" : ""}`}
    />
  );
  return (
    <Under id={id} label={label} small={small} className={className}>
      {unit === undefined ? (
        box
      ) : (
        <span className="mt-1 flex items-center gap-2">
          {box}
          <span className="text-soft">{unit}</span>
        </span>
      )}
      {help !== undefined && <span className="text-sm text-soft">{help}</span>}
    </Under>
  );
}

/** Yes or no, one row high enough for a glove. */
export function CheckRow({
  label,
  checked,
  onCheck,
  big = false,
  className = "",
  ...rest
}: {
  readonly label: ReactNode;
  readonly big?: boolean;
  readonly onCheck?: (checked: boolean) => void;
} & Omit<ComponentProps<"input">, "type">) {
  return (
    <label className={`flex items-center gap-2 ${big ? "min-h-12" : "min-h-11"} ${className}`}>
      <input
        {...rest}
        type="checkbox"
        checked={checked}
        {...(onCheck === undefined ? {} : { onChange: (event) => onCheck(event.target.checked) })}
        className={`${big ? "size-6" : "size-5"} shrink-0 accent-(--tarn)`}
      />
      {label}
    </label>
  );
}

/** What went wrong, said at once. Nothing where nothing did. */
export function Problem({
  children,
  id,
  className = "",
}: {
  readonly children: ReactNode;
  readonly id?: string;
  readonly className?: string;
}) {
  if (children === null || children === undefined || children === false || children === "") return null;
  return (
    <p id={id} role="alert" className={`font-semibold text-brick ${className}`}>
      {children}
    </p>
  );
}

/** What became of something sent: saved, or why not. */
export interface Outcome {
  readonly text: string;
  readonly bad: boolean;
}

/** The line under a form that says what became of it. */
export function OutcomeLine({ outcome, className = "" }: { readonly outcome: Outcome | null; readonly className?: string }) {
  return (
    <p
      role={outcome?.bad === true ? "alert" : "status"}
      className={`${className} ${outcome?.bad === true ? "font-semibold text-brick" : ""}`}
    >
      {outcome?.text}
    </p>
  );
}
