import { Link } from "react-router";
import type { TodayDto } from "../../api/schema";

/** The month's money in one sentence. */
export function MonthsMoney({ money }: { money: TodayDto["money"] }) {
	return (
		<p className="ml-auto flex flex-wrap gap-x-5 text-soft">
			<span>
				{money.month} so far: <b className="num text-ink">{money.booked}</b>{" "}
				booked, worth <b className="num text-ink">{money.won}</b> net
			</span>
			<Link to="/money?show=Received" className="min-h-6 text-soft">
				<b className="num text-ink">{money.received}</b> received
			</Link>
			<Link to="/money?show=Sent&all=1" className="min-h-6 text-soft">
				<b className="num text-ink">{money.sent}</b> sent, not yet due
			</Link>
			<Link to="/money?show=Late&all=1" className="min-h-6 text-soft">
				<b className="num text-ink">{money.late}</b> late
			</Link>
		</p>
	);
}
