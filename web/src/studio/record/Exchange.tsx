import type { LetterDeskDto, PreviewDto } from "../../api/schema";
import { Fold } from "../../ui/Fold";
import { Tip } from "../../ui/Tip";

/** The letter as it will read: what the record fills is marked by its blank's name. */
export function Filled({ preview }: { preview: PreviewDto }) {
	return (
		<Fold
			begin
			className="border-l-2 border-hair pl-3 text-[14px]"
			line={<span className="text-soft">As it will read</span>}
		>
			<p className="pt-1 whitespace-pre-line">
				{preview.pieces.map((piece, i) =>
					piece.blank ? (
						<Tip key={i} words={piece.blank}>
							<span
								className={
									piece.sort === "Gap"
										? "border border-dashed border-ink px-1 font-[650]"
										: "border-b border-dotted border-soft"
								}
							>
								{piece.text}
								{piece.sort === "StandBy" && (
									<span className="text-small text-soft"> (stands by)</span>
								)}
							</span>
						</Tip>
					) : (
						<span key={i}>{piece.text}</span>
					),
				)}
			</p>
		</Fold>
	);
}

export function Earlier({
	desk,
	answers,
}: {
	desk: LetterDeskDto;
	answers?: number;
}) {
	if (desk.earlier.length === 0) return null;
	return (
		<section className="border-t border-hair pt-3">
			<h3>Earlier</h3>
			{desk.earlier.map((letter, i) => (
				<Fold
					key={letter.id}
					begin={answers ? letter.id === answers : i === 0}
					className="pt-2 text-[14px]"
					line={
						<span>
							{letter.who}, {letter.when}: {letter.subject}
						</span>
					}
				>
					<p className="pt-1 whitespace-pre-line text-soft">{letter.text}</p>
				</Fold>
			))}
		</section>
	);
}
