export function Head({
	id,
	title,
	under,
	low,
}: {
	id: string;
	title: string;
	under?: string;
	low?: boolean;
}) {
	return (
		<div
			className={`rule flex items-baseline gap-2 pb-1.5 ${low ? "pt-5" : ""}`}
		>
			<h2 id={id} className={low ? "text-[15px]" : ""}>
				{title}
			</h2>
			{under && <span className="text-[14px] text-soft">{under}</span>}
		</div>
	);
}
