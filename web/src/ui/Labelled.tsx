import { type ReactNode, useId } from "react";

/** What every field has besides its value. */
export type About = {
	label: string;
	/** Read out behind the label, where several fields on a page have the same one. */
	about?: string;
	hint?: ReactNode;
	wrong?: string;
	/** Read out, not shown: where the place says what the field is. */
	hidden?: boolean;
};

/** What a field is tied to its label, its hint and its fault by. */
export type Tied = {
	id: string;
	"aria-invalid": boolean;
	"aria-describedby": string | undefined;
};

/** A label, its field, its hint, and what is wrong with it, all tied together. */
export function Labelled({
	label,
	about,
	hint,
	wrong,
	hidden,
	children,
}: About & { children: (tied: Tied) => ReactNode }) {
	const id = useId();
	return (
		<div>
			<label className={hidden ? "sr-only" : "label"} htmlFor={id}>
				{label}
				{about && <span className="sr-only">: {about}</span>}
			</label>
			{children({
				id,
				"aria-invalid": Boolean(wrong),
				"aria-describedby": wrong || hint ? `${id}-about` : undefined,
			})}
			{(wrong || hint) && (
				<div id={`${id}-about`} className={wrong ? "wrong" : "under pt-0.5"}>
					{wrong ?? hint}
				</div>
			)}
		</div>
	);
}
