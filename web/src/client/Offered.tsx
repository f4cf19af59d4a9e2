import type { ChoiceLineDto } from "../api/schema";
import { Blocks } from "../ui/Blocks";
import { Button } from "../ui/Button";
import { Fold } from "../ui/Fold";

/** What a line offers, how much of it, and what it costs at the end of the row. */
export function Offered({
	line,
	price,
	narrow,
}: {
	line: ChoiceLineDto;
	/** As chosen; else as proposed. */
	price?: string;
	/** Laid out as on a phone, however wide the screen is. */
	narrow?: boolean;
}) {
	return (
		<span
			className={`grid flex-1 grid-cols-[1fr_auto] gap-x-3 ${narrow ? "" : "md:grid-cols-[1fr_auto_96px]"}`}
		>
			<span>
				{line.title}
				{line.detail && (
					<span className="block text-[14.5px] text-soft">{line.detail}</span>
				)}
			</span>
			<span
				className={`num order-3 col-span-2 text-[14.5px] text-soft ${narrow ? "" : "md:order-none md:col-span-1 md:text-right"}`}
			>
				{line.howMuch}
			</span>
			<span className="num text-right font-[650] whitespace-nowrap">
				{price ?? line.price}
			</span>
		</span>
	);
}

/** What else there is to a line, out of its label so that it can be pressed by itself. */
export function MoreOf({
	line,
	pictureAt,
}: {
	line: ChoiceLineDto;
	pictureAt: (hash: string) => string;
}) {
	if (line.text.length === 0 && !line.link && !line.picture) return null;
	return (
		<Fold
			className="pb-3 pl-8 text-[14.5px]"
			line={<>More about {line.title}</>}
		>
			<div className="max-w-xl pt-2">
				{line.picture && (
					<img
						src={pictureAt(line.picture)}
						alt={line.title}
						className="mb-2 max-h-72 max-w-full"
					/>
				)}
				<Blocks of={line.text} />
				{line.link && (
					<Button asChild kind="word">
						<a href={line.link} rel="noreferrer noopener">
							{new URL(line.link).host}
						</a>
					</Button>
				)}
			</div>
		</Fold>
	);
}
