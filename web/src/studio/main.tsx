import "../ui/theme.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { Refusal } from "../api/refusal";
import { keepFocus } from "../ui/keepFocus";
import { Studio } from "./Studio";

// Radix adds style elements of its own; the policy lets in those that carry this page's nonce
const nonce = document.querySelector<HTMLMetaElement>(
	"meta[property=csp-nonce]",
)?.nonce;
if (nonce) setNonce(nonce);

const queries = new QueryClient({
	defaultOptions: {
		queries: {
			staleTime: 5_000,
			// the studio may run on this very machine: a browser that thinks it is offline asks all the same
			networkMode: "always",
			retry: (count, error) =>
				count < 2 && !(error instanceof Refusal && error.status > 0),
		},
	},
});

keepFocus();
createRoot(document.getElementById("root")!).render(
	<StrictMode>
		<QueryClientProvider client={queries}>
			<BrowserRouter>
				<Studio />
			</BrowserRouter>
		</QueryClientProvider>
	</StrictMode>,
);
