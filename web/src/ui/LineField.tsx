import type { ComponentProps } from "react";

const looks = {
	/** On a rule of the page. */
	line: "min-w-40 flex-1 bg-transparent px-2 py-1.5",
	/** On the dark bar. */
	bar: "h-[34px] w-full rounded-xs border border-transparent bg-(--bar-field) px-2.5 text-white placeholder:text-(--bar-ink) focus-visible:outline-white",
};

/** A field without a frame of its own: what is written stands right where it will be. */
export function LineField({
	label,
	look = "line",
	...input
}: Omit<ComponentProps<"input">, "type" | "className"> & {
	label: string;
	look?: keyof typeof looks;
}) {
	return (
		<input
			aria-label={label}
			autoComplete="off"
			className={looks[look]}
			{...input}
		/>
	);
}
