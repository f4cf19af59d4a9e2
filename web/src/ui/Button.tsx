import { Slot } from "radix-ui";
import type { ComponentProps } from "react";

type Kind = keyof typeof looks;

const looks = {
	plain: "btn",
	/** The one act a place is there for. */
	go: "btn btn-go",
	/** The same on the client's side, in the studio's colour. */
	brand: "btn btn-brand",
	/** A word that acts, inside text and beside headings. */
	word: "link",
	/** A line of a list, or a whole card, that opens when it is pressed. */
	line: "text-left",
};

/** Something to press. `className` places it; how it looks is its kind. */
export function Button({
	kind = "plain",
	size,
	asChild,
	className = "",
	...props
}: ComponentProps<"button"> & {
	kind?: Kind;
	size?: "small" | "big";
	/** Gives its looks to the link inside it. */
	asChild?: boolean;
}) {
	const look = `${looks[kind]} ${size === "small" ? "text-small" : ""} ${size === "big" ? "btn-big" : ""} ${className}`;
	return asChild ? (
		<Slot.Root className={look} {...props} />
	) : (
		<button type="button" className={look} {...props} />
	);
}
