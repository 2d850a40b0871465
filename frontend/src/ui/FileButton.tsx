/** A button that asks for a file; the same file can be chosen again after mending it. */
import { useRef } from "react";
import { Button } from "./controls";

interface FileButtonProps {
  label: string;
  accept: string;
  disabled?: boolean;
  className?: string;
  onFile: (file: File) => void;
}

export function FileButton({ label, accept, disabled, className, onFile }: FileButtonProps) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button className={className} onClick={() => picker.current?.click()} disabled={disabled}>
        {label}
      </Button>
      <input
        ref={picker}
        type="file"
        accept={accept}
        aria-label={label}
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onFile(file);
          e.target.value = "";
        }}
      />
    </>
  );
}
