using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Stages;

/// <summary>Whether a project is booked, and since when. What is won stays won wherever the project goes next.</summary>
/// <remarks>
/// Read fact by fact in the order of recording: once the kind's rule was met, neither a voided contract, a payment recorded
/// by mistake nor a later price with a higher deposit takes the win back. A payment that made it and was charged back does,
/// and so does “not won after all”, after which only new evidence makes a new win.
/// </remarks>
public static class Booking
{
    /// <summary>The later of what the kind's rule needs; null while it is not met, or after the win was taken back.</summary>
    public static Instant? WonAt(Case project) => Of(project).Won;

    /// <summary>The win with the fact that completed it.</summary>
    public static (Instant At, Fact By)? Win(Case project) =>
        Of(project) is { Won: { } at, By: { } by } ? (at, by) : null;

    private static Evidence Of(Case project)
    {
        var evidence = new Evidence(project.Kind);
        foreach (var fact in project.History.Facts)
            evidence.Take(fact);
        return evidence;
    }

    private sealed class Evidence(KindRules kind)
    {
        private readonly List<(PaymentId Payment, Instant Happened, Money Amount)> payments = [];
        private readonly Dictionary<VersionId, (Instant? Client, Instant? Owner)> signatures = [];
        private readonly Dictionary<Gate, Instant> waived = [];
        private readonly HashSet<VersionId> amendments = [];
        private readonly Dictionary<InvoiceId, Money> extras = [];
        private (Money OnBooking, Instant First)? price;
        private HashSet<PaymentId> madeBy = [];
        private Instant notBefore = Instant.MinValue;

        public Instant? Won { get; private set; }
        public Fact? By { get; private set; }

        public void Take(Fact fact)
        {
            var before = Won;
            Read(fact);
            // one that is dated back by older evidence became known when it was met first
            if (before is null && Won is not null)
                By = fact;
        }

        private void Read(Fact fact)
        {
            switch (fact.What)
            {
                case Happening.ProposalAccepted accepted:
                    Agree(accepted.DueOnBooking, fact);
                    break;
                case Happening.PriceAgreed agreed:
                    Agree(agreed.DueOnBooking, fact);
                    break;
                case Happening.ContractSent { Amends: not null } amendment:
                    amendments.Add(amendment.Contract);
                    return;
                // an amendment changes what was booked, and books nothing
                case Happening.ContractSigned signed when !amendments.Contains(signed.Contract):
                    Sign(signed, fact.Happened);
                    break;
                case Happening.ContractVoided voided:
                    signatures.Remove(voided.Contract);
                    break;
                case Happening.GateWaived gate:
                    waived[gate.Gate] = fact.Happened;
                    break;
                case Happening.InvoiceIssued { Extra: true } extra:
                    extras[extra.Invoice] = extra.Amount;
                    return;
                case Happening.InvoiceCredited credited when extras.TryGetValue(credited.Invoice, out var asked):
                    extras[credited.Invoice] = asked - credited.Amount;
                    return;
                case Happening.PaymentReceived paid:
                    Pay(paid, fact.Happened);
                    break;
                // one that goes with a credit note is not owed again, and opens nothing
                case Happening.PaymentRefunded { Note: null } back:
                    foreach (
                        var i in Enumerable.Range(0, payments.Count).Where(i => payments[i].Payment == back.Payment)
                    )
                        payments[i] = payments[i] with { Amount = payments[i].Amount - back.Amount };
                    break;
                case Happening.PaymentVoided voided:
                    payments.RemoveAll(payment => payment.Payment == voided.Payment);
                    break;
                case Happening.PaymentChargedBack back:
                    payments.RemoveAll(payment => payment.Payment == back.Payment);
                    if (madeBy.Contains(back.Payment))
                        Won = null;
                    break;
                case Happening.NotWonAfterAll:
                    payments.Clear();
                    signatures.Clear();
                    waived.Clear();
                    (Won, notBefore) = (null, fact.Happened);
                    return;
                default:
                    return;
            }
            Weigh();
        }

        /// <summary>The rule is met now; or evidence from outside says that it was met earlier than was known.</summary>
        private void Weigh()
        {
            var signed = Signed();
            var (paid, by) = Paid(signed);
            var met = kind.Win switch
            {
                WinRule.Signature => signed,
                WinRule.Payment => paid,
                _ => signed is null || paid is null ? null
                : signed > paid ? signed
                : paid,
            };
            if (met is not { } at)
                return;
            if (at < notBefore)
                at = notBefore;
            if (Won <= at)
                return;
            (Won, madeBy) = (at, kind.Win == WinRule.Signature ? [] : by);
        }

        /// <summary>What an invoice besides the price asks for books nothing; what is more than that is for the price.</summary>
        private void Pay(Happening.PaymentReceived paid, Instant at)
        {
            var amount = paid.Amount;
            if (paid.Invoice is { } on && extras.TryGetValue(on, out var asked))
            {
                var taken = asked < amount ? asked : amount;
                extras[on] = asked - taken;
                amount -= taken;
            }
            if (amount.Minor > 0)
                payments.Add((paid.Payment, at, amount));
        }

        private void Agree(Money onBooking, Fact fact) =>
            price = (onBooking, price is { First: var first } && first < fact.Happened ? first : fact.Happened);

        private void Sign(Happening.ContractSigned signed, Instant at)
        {
            var (client, owner) = signatures.GetValueOrDefault(signed.Contract);
            signatures[signed.Contract] =
                signed.Signer == Signer.Client ? (Earlier(client, at), owner) : (client, Earlier(owner, at));
        }

        // a gate the kind does not have asks nothing, so the win waits for the other alone
        private Instant? Signed() =>
            !kind.Gates.Contains(Gate.Contract) ? Instant.MinValue
            : waived.TryGetValue(Gate.Contract, out var waiver) ? waiver
            : signatures
                .Values.Where(both => both is { Client: not null, Owner: not null })
                .Select(both => Later(both.Client, both.Owner))
                .Min();

        private (Instant? At, HashSet<PaymentId> By) Paid(Instant? signed)
        {
            if (!kind.Gates.Contains(Gate.Payment))
                return (Instant.MinValue, []);
            if (waived.TryGetValue(Gate.Payment, out var waiver))
                return (waiver, []);
            if (price is not { } agreed)
                return (null, []);
            // nothing due on booking: with the gate before it
            if (agreed.OnBooking.Minor == 0)
                return (Later(signed, agreed.First), []);
            var sum = Money.Zero(agreed.OnBooking.Currency);
            HashSet<PaymentId> by = [];
            foreach (var payment in payments.OrderBy(payment => payment.Happened))
            {
                sum += payment.Amount;
                by.Add(payment.Payment);
                if (sum >= agreed.OnBooking)
                    return (Later(payment.Happened, agreed.First), by);
            }
            return (null, []);
        }

        private static Instant Earlier(Instant? known, Instant at) => known < at ? known.Value : at;

        private static Instant? Later(Instant? a, Instant? b) =>
            a is null || b is null ? null
            : a > b ? a
            : b;
    }
}
