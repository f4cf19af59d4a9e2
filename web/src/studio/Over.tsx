import { NavLink } from "react-router";

/** Three views over all projects: by whose turn, as a table, by months. */
export function Over() {
	return (
		<nav
			aria-label="Views over all projects"
			className="flex border-[1.5px] border-ink print:hidden"
		>
			{views.map(([to, words]) => (
				<NavLink
					key={to}
					to={to}
					className={({ isActive }) =>
						`px-3 py-1.5 font-head text-[13.5px] leading-tight font-semibold no-underline ${isActive ? "bg-ink text-(--on-ink)" : ""}`
					}
				>
					{words}
				</NavLink>
			))}
		</nav>
	);
}

const views = [
	["/turns", "Turns"],
	["/register", "Register"],
	["/season", "Season"],
] as const;
