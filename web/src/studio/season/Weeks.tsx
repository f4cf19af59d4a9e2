import { Link } from "react-router";
import type { SeasonDto } from "../../api/schema";
import { Today } from "./Track";

const height = 72;

/** How full the weeks are: each as high as it is planned, hatched where it holds too much, dashed where it leaves enough for a start. */
export function Weeks({ season }: { season: SeasonDto }) {
	const { scale, weeks } = season;
	return (
		<div className="relative">
			<svg
				role="img"
				aria-label={`Your weeks. ${weeks.map((week) => week.words).join("; ")}`}
				width="100%"
				height={height + 22}
				className="block"
			>
				{weeks.map((week) => {
					const from = Math.max(0, week.at);
					const until = Math.min(scale.days, week.at + 7);
					const x = `${(100 * (from + 0.4)) / scale.days}%`;
					const width = `${(100 * Math.max(0.2, until - from - 0.8)) / scale.days}%`;
					const tall = (week.share / 100) * (height - 8);
					return (
						<g key={week.monday}>
							<title>{week.words}</title>
							{week.free && (
								<rect
									x={x}
									width={width}
									y={8}
									height={height - 8}
									className="fill-none stroke-ink [stroke-dasharray:3_2]"
								/>
							)}
							<rect
								x={x}
								width={width}
								y={height - tall}
								height={tall}
								className={
									week.over
										? "fill-[url(#in-work)] stroke-ink"
										: "fill-(--hatch)"
								}
							/>
						</g>
					);
				})}
				<line
					x1="0"
					x2="100%"
					y1={height}
					y2={height}
					className="stroke-hair"
				/>
				<Today scale={scale} />
				{scale.today != null && (
					<text
						x={`${(100 * (scale.today + 0.5)) / scale.days}%`}
						y={height + 18}
						textAnchor={scale.today < scale.days * 0.04 ? "start" : "middle"}
						className="fill-yours font-head text-[12.4px] font-semibold"
					>
						today
					</text>
				)}
			</svg>
			{weeks
				.filter((week) => week.at >= 0)
				.map((week) => (
					<Link
						key={week.monday}
						to={`/week?day=${week.monday}`}
						tabIndex={-1}
						aria-label={week.words}
						className="absolute top-0"
						style={{
							left: `${(100 * week.at) / scale.days}%`,
							width: `${(100 * Math.min(7, scale.days - week.at)) / scale.days}%`,
							height,
						}}
					/>
				))}
		</div>
	);
}
