import type { TodayDto } from "../../api/schema";

/** The month's money in one sentence. */
export function MonthsMoney({ money }: { money: TodayDto["money"] }) {
	return (
		<p className="ml-auto flex flex-wrap gap-x-5 text-soft">
			<span>
				{money.month} so far: <b className="num text-ink">{money.booked}</b>{" "}
				booked, worth <b className="num text-ink">{money.won}</b> net
			</span>
			<span>
				<b className="num text-ink">{money.received}</b> received
			</span>
			<span>
				<b className="num text-ink">{money.sent}</b> sent, not yet due
			</span>
			<span>
				<b className="num text-ink">{money.late}</b> late
			</span>
		</p>
	);
}
