import { createContext, type ReactNode, useContext } from "react";
import { Button } from "../../ui/Button";

/** How the part around a block is folded away; nothing where it cannot be. */
export const Folding = createContext<(() => void) | undefined>(undefined);

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
	const fold = useContext(Folding);
	return (
		<section
			aria-label={title}
			className="border-b border-hair py-3 last:border-0"
		>
			<div className="flex items-baseline gap-3 pb-0.5">
				<h2 className="text-[15px]">
					{fold ? (
						<Button kind="line" aria-expanded onClick={fold}>
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
