import type { PreviewRowDto } from "../../api/schema";

export function Rows({
	title,
	rows,
}: {
	title: string;
	rows: readonly PreviewRowDto[];
}) {
	return (
		<section aria-label={title}>
			<h2 className="rule pb-1.5">{title}</h2>
			<ol>
				{rows.map((row) => (
					<li
						key={row.row}
						className="grid grid-cols-[56px_1fr] border-b border-hair py-1 text-[14px]"
					>
						<span className="num text-soft">row {row.row}</span>
						<span>
							{row.read.join("; ")}
							{row.wrong.map((one) => (
								<b key={one} className="block font-[650]">
									{one}
								</b>
							))}
						</span>
					</li>
				))}
			</ol>
		</section>
	);
}
