import { createContext, type ReactNode, useContext } from "react";
import { Button } from "../../ui/Button";

/** The part around a block and how it is folded away; nothing where it cannot be. */
export const Folding = createContext<
	{ part: string; fold: () => void } | undefined
>(undefined);

/** One part of the sheet under its heading, with what can be done there beside it. */
export function Block({
	title,
	aside,
	children,
}: {
	title: string;
	aside?: ReactNode;
	children: ReactNode;
}) {
	const folding = useContext(Folding);
	return (
		<section
			aria-label={title}
			data-part={folding?.part}
			className="border-b border-hair py-3 last:border-0"
		>
			<div className="flex items-baseline gap-3 pb-0.5">
				<h2 className="text-[15px]">
					{folding ? (
						<Button kind="line" aria-expanded onClick={folding.fold}>
							{title}
						</Button>
					) : (
						title
					)}
				</h2>
				{aside && <span className="ml-auto text-small">{aside}</span>}
			</div>
			{children}
		</section>
	);
}
