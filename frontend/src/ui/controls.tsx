/** Buttons, boxes and choices in our tokens. Large enough for cold hands. */
import { type ComponentProps, type ReactNode, useId } from "react";
import type { Problem } from "../api/client";

type ButtonProps = ComponentProps<"button"> & { look?: "main" | "plain" | "quiet" | "danger" };

const LOOKS = {
  main: "bg-water text-on-water border-water",
  plain: "bg-raised text-ink border-ink",
  quiet: "bg-transparent text-ink border-transparent underline underline-offset-4 decoration-1",
  danger: "bg-raised text-warm border-warm",
};

export function Button({ look = "plain", className = "", type = "button", ...rest }: ButtonProps) {
  return (
    <button
      type={type}
      className={`min-h-11 rounded-md border-2 px-4 py-1.5 font-semibold disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}

/** A fault told at its field: what is wrong, what is accepted, what to do. */
export function Fault({ problem, id, action }: { problem: Problem; id?: string; action?: ReactNode }) {
  return (
    <p id={id} role="alert" className="mt-1 border-l-4 border-warm pl-2 text-[0.92rem] text-warm">
      <span className="font-bold">{problem.message}</span>
      {problem.accepted && <span> Accepted: {problem.accepted}.</span>}
      {problem.hint && <span> {problem.hint}</span>} {action}
    </p>
  );
}

interface FieldProps {
  label: string;
  hint?: string;
  problem?: Problem;
  children: (props: { id: string; "aria-describedby"?: string; "aria-invalid"?: boolean }) => ReactNode;
  className?: string;
}

export function Field({ label, hint, problem, children, className = "" }: FieldProps) {
  const id = useId();
  const about = problem || hint ? `${id}-about` : undefined;
  return (
    <div className={className}>
      <label htmlFor={id} className="block font-semibold">
        {label}
      </label>
      {children({ id, "aria-describedby": about, "aria-invalid": problem ? true : undefined })}
      {problem ? (
        <Fault problem={problem} id={about} />
      ) : (
        hint && (
          <p id={about} className="text-[0.92rem] text-soft">
            {hint}
          </p>
        )
      )}
    </div>
  );
}

export const BOX =
  "min-h-11 w-full rounded-md border-2 border-edge bg-raised px-2.5 py-1 text-ink aria-invalid:border-warm";

export function TextBox({ className = "", ...rest }: ComponentProps<"input">) {
  return <input className={`${BOX} ${className}`} {...rest} />;
}

/** A box for a number, with its unit after it; the comma is as good as the point. */
export function NumberBox({ unit, className = "", ...rest }: ComponentProps<"input"> & { unit?: string }) {
  return (
    <span className={`flex items-center gap-1.5 ${className}`}>
      <input inputMode="decimal" autoComplete="off" className={BOX} {...rest} />
      {unit && <span className="shrink-0 text-soft">{unit}</span>}
    </span>
  );
}

export function Select({ className = "", ...rest }: ComponentProps<"select">) {
  return <select className={`${BOX} pr-1 ${className}`} {...rest} />;
}

interface ChoiceProps<T extends string> {
  label: string;
  value: T | "";
  options: { value: T; label: string; title?: string }[];
  onChange: (value: T | "") => void;
  /** A choice that must be made cannot be taken back. */
  required?: boolean;
}

/** One of a few, as a row of buttons: arrows choose, and pressing the chosen one again takes it back. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  required = false,
}: ChoiceProps<T>) {
  const name = useId();
  return (
    <fieldset className="min-w-0">
      <legend className="font-semibold">{label}</legend>
      <div className="mt-0.5 flex flex-wrap gap-1.5">
        {options.map((option) => {
          const on = option.value === value;
          return (
            <label
              key={option.value}
              title={option.title}
              className="relative flex min-h-11 cursor-pointer items-center rounded-md border-2 border-edge bg-raised px-3 font-medium has-checked:border-ink has-checked:bg-ink has-checked:text-raised has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-take"
            >
              <input
                type="radio"
                name={name}
                value={option.value}
                checked={on}
                onChange={() => onChange(option.value)}
                onClick={() => on && !required && onChange("")}
                className="absolute inset-0 size-full cursor-pointer opacity-0"
              />
              {option.label}
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}

export function Tick({
  label,
  checked,
  onChange,
  note,
}: {
  label: string;
  checked: boolean;
  onChange: (on: boolean) => void;
  note?: string;
}) {
  return (
    <label className="flex min-h-11 cursor-pointer items-center gap-2.5">
      <input
        type="checkbox"
        checked={checked}
        onChange={(e) => onChange(e.target.checked)}
        className="size-6 shrink-0 accent-water"
      />
      <span>
        {label}
        {note && <span className="block text-[0.92rem] leading-tight text-soft">{note}</span>}
      </span>
    </label>
  );
}
