/** What the shapes mean. */
export function Legend() {
	return (
		<ul
			aria-label="What the shapes mean"
			className="flex flex-wrap gap-x-5 gap-y-1 pt-4 text-[13px] text-soft"
		>
			{shapes.map(([words, look]) => (
				<li key={words} className="flex items-center gap-2">
					<svg aria-hidden width="22" height="12">
						<rect x="1" y="1" width="20" height="10" className={look} />
					</svg>
					{words}
				</li>
			))}
			{dots.map(([words, look]) => (
				<li key={words} className="flex items-center gap-2">
					<svg aria-hidden width="10" height="12">
						<circle cx="5" cy="6" r="3.2" className={look} />
					</svg>
					{words}
				</li>
			))}
		</ul>
	);
}

const shapes = [
	["done", "fill-ink stroke-ink"],
	["in work", "fill-[url(#in-work)] stroke-ink"],
	["ahead", "fill-none stroke-(--date) [stroke-dasharray:1.5_1.5]"],
	["resting", "fill-none stroke-soft [stroke-dasharray:5_3]"],
] as const;

const dots = [
	["received", "fill-ink stroke-ink"],
	["sent", "fill-sheet stroke-ink"],
	["late", "fill-[url(#in-work)] stroke-ink"],
	["agreed, to come", "fill-none stroke-(--date) [stroke-dasharray:1.6_1.4]"],
] as const;
