import type { ReactNode } from "react";
import { NavLink } from "react-router";

/** The parts of the books; beside them what narrows the one that is open. */
export function Books({ children }: { children?: ReactNode }) {
	return (
		<div className="flex flex-wrap items-center gap-x-5 gap-y-2 pt-3 print:hidden">
			<nav
				aria-label="The books"
				className="flex flex-wrap gap-x-5 gap-y-1 font-head text-[14px]"
			>
				{parts.map(([to, words]) => (
					<NavLink
						key={to}
						to={to}
						end
						className={({ isActive }) =>
							isActive
								? "border-b-[2.5px] border-ink font-semibold no-underline"
								: "text-soft no-underline hover:underline"
						}
					>
						{words}
					</NavLink>
				))}
			</nav>
			{children}
		</div>
	);
}

const parts = [
	["/money", "The year"],
	["/money/invoices", "Invoices"],
	["/money/bank", "Bank"],
	["/money/accounts", "Accounts"],
	["/money/accountant", "Accountant"],
] as const;
