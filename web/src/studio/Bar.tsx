import { useQuery, useQueryClient } from "@tanstack/react-query";
import { NavLink } from "react-router";
import { answer, api } from "../api/client";
import type { SessionDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Kbd } from "../ui/Kbd";
import { SlipField } from "./SlipField";

/** The dark bar: places as words, with the number of projects whose turn is yours. */
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
		<header className="flex min-h-[52px] flex-wrap items-center gap-x-1 gap-y-1 bg-(--bar) px-5 py-1 print:hidden">
			<span className="mr-4 font-head text-[19px] font-[750] tracking-tight text-white [font-stretch:118%]">
				Gesamt
			</span>
			<nav aria-label="Places" className="flex flex-wrap gap-1">
				<Place to="/today" words="Today" count={turns.data?.yours} />
				<Place to="/turns" words="Turns" />
				<Place to="/register" words="Register" />
				<Place to="/people" words="People" />
				<Place to="/templates" words="Templates" />
			</nav>
			<SlipField />
			<nav aria-label="Other" className="ml-auto flex items-center gap-1">
				<Button
					kind="line"
					className="px-[11px] py-[7px] font-head text-[14.5px] font-medium text-(--bar-ink)"
					onClick={() => document.dispatchEvent(new Event("gesamt:find"))}
				>
					Find <Kbd>Ctrl K</Kbd>
				</Button>
				{session.hasStandIns && <Place to="/post-office" words="Post office" />}
				<Button
					kind="line"
					className="px-[11px] py-[7px] font-head text-[14.5px] font-medium text-(--bar-ink)"
					onClick={signOut}
				>
					Sign out
				</Button>
			</nav>
		</header>
	);
}

function Place({
	to,
	words,
	count,
}: {
	to: string;
	words: string;
	count?: number;
}) {
	return (
		<NavLink
			to={to}
			className={({ isActive }) =>
				`rounded-xs px-[11px] py-[7px] font-head text-[14.5px] font-medium no-underline max-md:px-[7px] outline-offset-0 focus-visible:outline-white ${isActive ? "bg-sheet text-ink" : "text-(--bar-ink)"}`
			}
		>
			{({ isActive }) => (
				<>
					{words}
					{count !== undefined && (
						<b
							className={`num ml-1.5 font-[650] ${isActive ? "text-yours" : "text-[#ffb59b]"}`}
						>
							{count}
							<span className="sr-only"> wait for you</span>
						</b>
					)}
				</>
			)}
		</NavLink>
	);
}
