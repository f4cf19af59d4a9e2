using System.Collections.Immutable;
using Gesamt.Core.Contracts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Proposals;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Proposals;

/// <summary>What was agreed is changed: what is issued stays, the rest is split anew, and what was issued beyond is credited.</summary>
public class AmendmentTests
{
    private static readonly Rate Full = Rate.Percent(23),
        Reduced = Rate.Percent(8);
    private static readonly PlanDates Dates = new(Date("2027-03-12"), _ => null, Date("2027-01-15"), World.Calendar);

    private static readonly ImmutableArray<PlanPart> All = [new(Rate.Percent(100), new DueRule.OnHandover(14))];

    private static OfferLine Line(string key, decimal price, Rate tax) =>
        new(key, LineRole.Included, null, key, "", 1, "", price, tax, false);

    private static Offer Of(bool gross, ImmutableArray<PlanPart> plan, params OfferLine[] lines) =>
        new("Hall", "", "", Currency.Eur, Date("2027-12-31"), [.. lines], plan) { Gross = gross };

    private static BilledPart Billed(long invoice, int place, decimal net, Rate tax) =>
        new(new InvoiceId(invoice), place, Totals.OfNet(Eur(net), tax));

    [Fact] // 3 000 net, 1 200 of it invoiced; 500 more: 3 500 × 1.23 = 4 305.00, of which 1 476.00 is invoiced
    public void What_comes_on_top_is_split_over_what_is_not_invoiced()
    {
        var amended = Amendment.Of(
            Of(
                false,
                [new(Rate.Percent(50), new DueRule.OnBooking(7)), new(Rate.Percent(50), new DueRule.OnHandover(14))],
                Line("mural", 3000, Full),
                Line("name", 500, Full)
            ),
            [Billed(1, 0, 1200, Full)],
            Dates
        );
        Assert.Equal((Eur(4305), Eur(3500)), (amended.Agreed.Payable, amended.Agreed.Net));
        Assert.Equal((Eur(1476), Eur(2829)), (amended.Billed.Payable, amended.Rest.Payable));
        Assert.Equal([Eur(1414.50m), Eur(1414.50m)], amended.Priced.Instalments.Select(part => part.Part.Payable));
        Assert.Equal(
            ["50 % of the rest, due 7 days after it is signed", "50 % of the rest, due 14 days after handover"],
            amended.Priced.Instalments.Select(part => part.Words)
        );
        Assert.Empty(amended.Credits);
    }

    [Fact] // 1 000 net are left of 1 200 that were invoiced: 200 × 1.23 = 246.00 are taken back
    public void What_was_invoiced_beyond_the_new_price_is_credited_from_the_latest_invoice_on()
    {
        var amended = Amendment.Of(
            Of(false, All, Line("mural", 1000, Full)),
            [Billed(1, 0, 1100, Full), Billed(2, 1, 100, Full)],
            Dates
        );
        Assert.Equal(
            [(new InvoiceId(2), Eur(123)), (new InvoiceId(1), Eur(123))],
            amended.Credits.Select(credit => (credit.Invoice, credit.Totals.Payable))
        );
        Assert.Equal((Eur(1230), Eur(0)), (amended.Agreed.Payable, amended.Rest.Payable));
        Assert.Empty(amended.Priced.Instalments);
    }

    [Fact] // 1 200 at 23 % invoiced; all of it turns out to be taxed at 8 %: 276 of tax and the net come back, and are asked for anew
    public void Another_rate_is_credited_and_invoiced_anew()
    {
        var amended = Amendment.Of(Of(false, All, Line("mural", 3000, Reduced)), [Billed(1, 0, 1200, Full)], Dates);
        Assert.Equal(Eur(1476), amended.Credited.Payable);
        Assert.Equal((Eur(3240), Eur(3240)), (amended.Rest.Payable, amended.Agreed.Payable));
    }

    [Fact]
    public void A_line_to_choose_has_no_place_in_an_amendment()
    {
        var offer = Of(false, All, Line("mural", 1000, Full), Line("name", 20, Full) with { Role = LineRole.Extra });
        Assert.Equal("lines.name", Assert.Throws<OfferException>(() => Amendment.Of(offer, [], Dates)).Field);
        Assert.Contains(OfferCheck.Faults(offer, [], Dates), fault => fault.Field == "lines.name");
        Assert.Empty(OfferCheck.Faults(Of(false, All, Line("mural", 1000, Full)), [], Dates));
    }

    [Fact] // places 0 and 2 were invoiced; two new parts take place 1 and a new one
    public void Invoiced_parts_keep_their_places()
    {
        var offer = Of(
            false,
            [new(Rate.Percent(40), new DueRule.OnBooking(7)), new(Rate.Percent(60), new DueRule.OnHandover(14))],
            Line("mural", 1000, Full)
        );
        var amended = Amendment.Of(offer, [Billed(1, 0, 300, Full), Billed(2, 2, 200, Full)], Dates);
        ImmutableArray<AgreedPart> before =
        [
            new(Eur(369), new DueRule.OnBooking(7)),
            new(Eur(123), new DueRule.OnHandover(0)),
            new(Eur(246), new DueRule.OnDate(Date("2027-02-01"), 0)),
        ];
        var (parts, places) = amended.Parts(before, new HashSet<int> { 0, 2 });
        Assert.Equal([1, 3], places);
        Assert.Equal([Eur(369), Eur(246), Eur(246), Eur(369)], parts.Select(part => part.Amount));
        // fewer parts than there is room for: what is left over asks for nothing
        var (fewer, _) = Amendment
            .Of(Of(false, All, Line("mural", 500, Full)), [Billed(1, 0, 500, Full)], Dates)
            .Parts(before, new HashSet<int> { 0 });
        Assert.Equal([Eur(369), Eur(0), Eur(0)], fewer.Select(part => part.Amount));
    }

    private static readonly Gen<Offer> AnyOffer = Gen.Select(
            Gen.Bool,
            Gen.Select(Gen.Int[0, 500_000], Any.Of(Full, Reduced, Rate.Percent(0))).Array[1, 5],
            Gen.Int[1, 99]
        )
        .Select(
            (gross, lines, share) =>
                Of(
                    gross,
                    [
                        new(Rate.Percent(share), new DueRule.OnBooking(7)),
                        new(Rate.Percent(100 - share), new DueRule.OnHandover(14)),
                    ],
                    [.. lines.Select((line, i) => Line($"l{i}", line.Item1 / 100m, line.Item2))]
                )
        );

    [Fact]
    public void What_was_invoiced_what_is_taken_back_and_what_is_left_make_the_new_price_to_the_cent()
    {
        Gen.Select(AnyOffer, AnyOffer, Gen.Int[0, 2])
            .Sample(
                (before, after, issued) =>
                {
                    after = after with { Gross = before.Gross };
                    Amendment amended;
                    List<BilledPart> billed;
                    try
                    {
                        billed =
                        [
                            .. Pricing
                                .Of(before, Choice.Nothing, Dates)
                                .Instalments.Take(issued)
                                .Select((part, i) => new BilledPart(new InvoiceId(i + 1), i, part.Part.Totals)),
                        ];
                        amended = Amendment.Of(after, billed, Dates);
                    }
                    catch (InstalmentException)
                    {
                        return; // too small for its plan, and said so
                    }
                    var whole = amended.Priced.Totals;
                    // net by rate exactly, the tax of each document rounded on its own (BR-CO-17)
                    if (after.Gross && (amended.Rest.Payable.Minor > 3 || amended.Credits.Length > 0))
                        Assert.Equal(whole.Payable, amended.Agreed.Payable);
                    else if (after.Gross)
                        Assert.InRange((whole.Payable - amended.Agreed.Payable).Minor, -3, 3);
                    else
                        foreach (var part in whole.Parts)
                            Assert.Equal(part.Net, amended.Agreed.Parts.Single(one => one.Rate == part.Rate).Net);
                    Assert.InRange(
                        Math.Abs((whole.Payable - amended.Agreed.Payable).Minor),
                        0,
                        3 * (issued + amended.Credits.Length + 1)
                    );
                    Assert.Equal(
                        amended.Rest.Payable,
                        amended.Priced.Instalments.Select(part => part.Part.Payable).Sum(Currency.Eur)
                    );
                    Assert.All(amended.Rest.Parts, part => Assert.Equal(part.Net.Times(part.Rate), part.Tax));
                    Assert.All(amended.Rest.Parts, part => Assert.True(part.Net.Minor >= 0));
                    foreach (var credit in amended.Credits)
                    {
                        var invoice = billed.Single(part => part.Invoice == credit.Invoice).Left;
                        Assert.True(credit.Totals.Payable.Minor > 0);
                        foreach (var part in credit.Totals.Parts)
                            Assert.InRange(
                                part.Net.Minor,
                                0,
                                invoice.Parts.Single(one => one.Rate == part.Rate).Net.Minor
                            );
                    }
                    // nothing of a rate is taken back and asked for at once
                    Assert.Empty(
                        amended
                            .Rest.Parts.Where(part => part.Net.Minor > 0)
                            .Select(part => part.Rate)
                            .Intersect(
                                amended.Credited.Parts.Where(part => part.Net.Minor > 0).Select(part => part.Rate)
                            )
                    );
                }
            );
    }

    private static readonly VersionId Paper = new(20);

    private static Happening Amended(decimal agreed, params (decimal Amount, DueRule Due)[] parts) =>
        new Happening.PriceAmended(
            new VersionId(19),
            Eur(agreed),
            Eur(agreed),
            [.. parts.Select(part => new AgreedPart(Eur(part.Amount), part.Due))]
        );

    private static readonly (string, Happening)[] Booked =
    [
        ("2027-01-01 09:00", Inquiry),
        ("2027-01-05 09:00", Sent()),
        ("2027-01-08 09:00", Accepted()),
        ("2027-01-08 09:00", ContractSent),
        ("2027-01-08 09:10", Signed(Signer.Client)),
        ("2027-01-08 09:10", new Happening.InvoiceIssued(new InvoiceId(1), Eur(1200), Date("2027-01-15"), 0)),
        ("2027-01-09 09:00", Signed(Signer.Owner)),
        ("2027-01-12 09:00", Paid(1200, invoice: 1)),
    ];

    private static readonly OpenTask Paint = new(new TaskId(1), "Paint", null);

    [Fact]
    public void An_amendment_changes_the_price_from_its_signature_on_and_neither_the_booking_nor_what_was_due_on_it()
    {
        var sent = Case([.. Booked, ("2027-02-01 09:00", new Happening.ContractSent(Paper, V1))]);
        Assert.Equal(Eur(3000), AgreedPrice.Of(sent.History)!.Agreed);
        var turn = TurnRule.Of(sent.With(Paint), At("2027-02-02 09:00"));
        Assert.Equal(
            (Side.Clients, WaitKind.SignContract, "Amendment not signed yet"),
            (turn.Turn, turn.Waits, turn.Words)
        );
        var signed = Case([
            .. Booked,
            ("2027-02-01 09:00", new Happening.ContractSent(Paper, V1)),
            ("2027-02-03 09:00", new Happening.ContractSigned(Paper, Signer.Client)),
            ("2027-02-03 09:00", Amended(3500, (1200, new DueRule.OnBooking(7)), (2300, new DueRule.OnBooking(10)))),
        ]);
        var price = AgreedPrice.Of(signed.History)!;
        Assert.Equal((Eur(3500), Eur(1200), true), (price.Agreed, price.DueOnBooking, price.Amended));
        Assert.Equal(At("2027-01-08 09:00"), price.First);
        Assert.Equal(Booking.WonAt(sent), Booking.WonAt(signed));
        Assert.Equal(
            GateRule.Read(sent).Select(gate => gate.ClosedAt),
            GateRule.Read(signed).Select(gate => gate.ClosedAt)
        );
        // the part after signing counts from the amendment's own signature
        var left = Assert.Single(Billing.Planned(signed));
        Assert.Equal((1, 2, Eur(2300), Date("2027-02-13")), (left.Index, left.Of, left.Amount, left.Due!.Value));
        Assert.Equal(WaitKind.Countersign, TurnRule.Of(signed.With(Paint), At("2027-02-04 09:00")).Waits);
    }

    [Fact]
    public void A_signed_amendment_alone_closes_no_contract_gate_and_books_nothing()
    {
        var signed = Case([
            ("2027-01-01 09:00", Inquiry),
            ("2027-01-05 09:00", Sent()),
            ("2027-01-08 09:00", Accepted()),
            ("2027-02-01 09:00", new Happening.ContractSent(Paper, V1)),
            ("2027-02-03 09:00", new Happening.ContractSigned(Paper, Signer.Client)),
            ("2027-02-03 09:05", new Happening.ContractSigned(Paper, Signer.Owner)),
            ("2027-02-03 09:05", Amended(2000, (2000, new DueRule.OnHandover(0)))),
            ("2027-02-04 09:00", Paid(2000)),
        ]);
        Assert.Null(Booking.WonAt(signed));
        Assert.Equal(Stage.Contract, GateRule.StageOf(GateRule.Read(signed)));
        Assert.True(ContractRule.CanSend(signed));
    }

    [Fact]
    public void While_an_amendment_is_out_nothing_is_invoiced_by_itself_and_no_second_is_put()
    {
        var sent = Case([.. Booked, OpensSoon, ("2027-02-01 09:00", new Happening.ContractSent(Paper, V1))]);
        var before = Case([.. Booked, OpensSoon]);
        Assert.NotEmpty(Billing.DueNow(before, At("2027-03-01 12:00")));
        Assert.Empty(Billing.DueNow(sent, At("2027-03-01 12:00")));
        Assert.Null(Billing.NextAt(sent));
        Assert.False(ContractRule.CanAmend(sent));
        Assert.True(ContractRule.CanAmend(before));
        // declined or voided, everything goes on as it was agreed
        foreach (
            var end in new Happening[]
            {
                new Happening.ContractDeclined(Paper, new NoteId(1)),
                new Happening.ContractVoided(Paper),
            }
        )
        {
            var gone = Case([
                .. Booked,
                OpensSoon,
                ("2027-02-01 09:00", new Happening.ContractSent(Paper, V1)),
                ("2027-02-02 09:00", end),
            ]);
            Assert.NotEmpty(Billing.DueNow(gone, At("2027-03-01 12:00")));
            Assert.Equal(Eur(3000), AgreedPrice.Of(gone.History)!.Agreed);
            Assert.Equal(Contract, ContractState.Standing(gone.History));
        }
    }

    private static (string, Happening) OpensSoon => ("2027-01-10 09:00", OpeningDay("2027-03-10"));

    [Fact] // 1 200 paid, 200 of it taken back by the amendment: 1 000 are agreed and there
    public void What_an_amendment_takes_back_counts_once()
    {
        var signed = Case([
            .. Booked,
            ("2027-02-01 09:00", new Happening.ContractSent(Paper, V1)),
            ("2027-02-03 09:00", new Happening.ContractSigned(Paper, Signer.Client)),
            (
                "2027-02-03 09:00",
                new Happening.InvoiceCredited(new InvoiceId(1), new InvoiceId(2), Eur(200), AtEnd: false)
            ),
            ("2027-02-03 09:00", Amended(1000, (1200, new DueRule.OnBooking(7)))),
        ]);
        var price = AgreedPrice.Of(signed.History)!;
        Assert.Equal(Eur(0), Owed.Credited(signed.History, Currency.Eur));
        Assert.Equal(At("2027-01-12 09:00"), Payments.SettledAt(signed.History, price));
        Assert.Equal(Eur(0), Owed.On(signed.History, signed.History.Last<Happening.InvoiceIssued>()!.Value.What));
        Assert.Equal(Eur(200), Owed.Ahead(signed.History, Currency.Eur));
        Assert.Empty(Billing.Planned(signed));
    }
}
