import { useQuery, useQueryClient } from "@tanstack/react-query";
import { NavLink, useLocation, useNavigate } from "react-router";
import { answer, api } from "../api/client";
import type { SessionDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Kbd } from "../ui/Kbd";
import { Menu } from "../ui/Menu";
import { ClockInBar } from "./ClockInBar";
import { askCover } from "./cover/useCover";
import { SlipField } from "./SlipField";

/** The dark bar: places as words, with the number of projects whose turn is yours; on a phone the slip alone, with the places along the bottom edge. */
export function Bar({ session }: { session: SessionDto }) {
	const queries = useQueryClient();
	const turns = useQuery({
		queryKey: ["over", "turns"],
		queryFn: () => answer(api.GET("/api/turns")),
	});
	async function signOut() {
		await answer(api.DELETE("/api/session"));
		queries.clear();
	}
	return (
		<>
			<header className="flex min-h-[52px] items-center gap-x-1 gap-y-1 bg-(--bar) px-5 py-1 max-md:gap-x-3 max-md:px-4 print:hidden">
				<span className="mr-4 font-head text-[19px] font-[750] tracking-tight text-white [font-stretch:118%] max-md:mr-0">
					<span className="max-md:hidden">Gesamt</span>
					<span className="md:hidden">
						G<span className="sr-only">esamt</span>
					</span>
				</span>
				<nav aria-label="Places" className="flex gap-1 max-md:hidden">
					<Place to="/today" words="Today" count={turns.data?.yours} />
					<Place to="/turns" words="Turns" also={overAll} />
					<Place to="/week" words="Week" />
					<Place to="/money" words="Money" />
					<Place to="/people" words="People" />
					<Place to="/templates" words="Templates" />
					<Place to="/reports" words="Reports" />
				</nav>
				<SlipField />
				<nav
					aria-label="Other"
					className="ml-auto flex items-center gap-1 max-md:hidden"
				>
					<Act onClick={find}>
						Find <Kbd>Ctrl K</Kbd>
					</Act>
					<Act onClick={keys}>
						Keys <Kbd>?</Kbd>
					</Act>
					{session.hasStandIns && (
						<Place to="/post-office" words="Post office" />
					)}
					<Act onClick={signOut}>Sign out</Act>
				</nav>
			</header>
			<ClockInBar />
			<BottomEdge
				yours={turns.data?.yours}
				session={session}
				signOut={signOut}
			/>
		</>
	);
}

/** The other views over all projects: a switch on each leads there. */
const overAll = ["/register", "/season"];

const find = () => document.dispatchEvent(new Event("gesamt:find"));
const keys = () => document.dispatchEvent(new Event("gesamt:keys"));

/** The places of a phone, within a thumb's reach. */
function BottomEdge({
	yours,
	session,
	signOut,
}: {
	yours?: number;
	session: SessionDto;
	signOut: () => void;
}) {
	const navigate = useNavigate();
	const to = (words: string, path: string) => ({
		words,
		act: () => navigate(path),
	});
	return (
		<nav
			aria-label="Places"
			className="fixed inset-x-0 bottom-0 z-10 grid grid-cols-5 bg-(--bar) md:hidden print:hidden"
		>
			<Place to="/today" words="Today" count={yours} edge />
			<Place to="/turns" words="Turns" also={overAll} edge />
			<Place to="/week" words="Week" edge />
			<Place to="/money" words="Money" edge />
			<Menu
				look="edge"
				words="More"
				items={[
					to("People", "/people"),
					to("Templates", "/templates"),
					to("Reports", "/reports"),
					to("The studio", "/studio"),
					to("Tray", "/tray"),
					...(session.hasStandIns ? [to("Post office", "/post-office")] : []),
					{ words: "Find", act: find },
					{ words: "Hide names and amounts", act: askCover },
					{ words: "Sign out", act: signOut },
				]}
			/>
		</nav>
	);
}

function Act({
	onClick,
	children,
}: {
	onClick: () => void;
	children: React.ReactNode;
}) {
	return (
		<Button
			kind="line"
			className="px-[11px] py-[7px] font-head text-[14.5px] font-medium whitespace-nowrap text-(--bar-ink)"
			onClick={onClick}
		>
			{children}
		</Button>
	);
}

function Place({
	to,
	words,
	count,
	also,
	edge,
}: {
	to: string;
	words: string;
	count?: number;
	/** Addresses that are found under this word too. */
	also?: readonly string[];
	/** Along the bottom edge of a phone. */
	edge?: boolean;
}) {
	const look = edge
		? "grid min-h-14 place-items-center text-[13.5px]"
		: "rounded-xs px-[11px] py-[7px] text-[14.5px] whitespace-nowrap";
	const { pathname } = useLocation();
	const isUnder = also?.includes(pathname) ?? false;
	return (
		<NavLink
			to={to}
			className={({ isActive }) =>
				`${look} font-head font-medium no-underline outline-offset-0 focus-visible:outline-white ${isActive || isUnder ? "bg-sheet text-ink" : "text-(--bar-ink)"}`
			}
		>
			{({ isActive }) => (
				<span>
					{words}
					{count !== undefined && (
						<b
							className={`num ml-1.5 font-[650] ${isActive ? "text-yours" : "text-[#ffb59b]"}`}
						>
							{count}
							<span className="sr-only"> wait for you</span>
						</b>
					)}
				</span>
			)}
		</NavLink>
	);
}
