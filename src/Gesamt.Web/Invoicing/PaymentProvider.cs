using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.Invoicing;

/// <summary>What a provider is asked for.</summary>
/// <param name="Key">The same key gives the same payment again.</param>
/// <param name="What">As the payer reads it.</param>
/// <param name="Means">By card, or from the payer's account.</param>
/// <param name="ReturnTo">Where the provider sends the payer back.</param>
/// <param name="Keeps">Whether the payer has agreed that the provider keeps what they pay with, to be charged later.</param>
public sealed record PaymentAsk(
    string Key,
    Money Amount,
    string What,
    PaymentMeans Means,
    string ReturnTo,
    bool Keeps = false
);

/// <summary>A means of payment that a provider keeps.</summary>
/// <param name="Token">What the provider knows it by; nobody else can do anything with it.</param>
/// <param name="Words">As its owner knows it: “card ending in 4000”.</param>
public sealed record ProviderMeans(string Token, string Words);

/// <summary>What a provider says of a payment that was begun with it, as things stand now.</summary>
/// <param name="Words">Why it was refused; empty otherwise.</param>
/// <param name="ChargedBack">Whether the payer's bank took it back after it was paid.</param>
/// <param name="Kept">What it was paid with, where that was asked to be kept and is.</param>
public sealed record ProviderPayment(
    CheckoutState State,
    string Words,
    bool ChargedBack,
    ImmutableArray<ProviderRefund> Refunds,
    ProviderMeans? Kept = null
)
{
    /// <summary>One the provider knows nothing of, or on which nothing happened yet.</summary>
    public static readonly ProviderPayment Nothing = new(CheckoutState.Open, "", false, []);
}

/// <param name="Key">Ours, or the provider's own for one that was made on its pages.</param>
public sealed record ProviderRefund(string Key, Money Amount, RefundState State, string Words);

/// <summary>A provider of payments: all that a real one has to be plugged into. What is typed on its pages, cards and accounts, is never seen here.</summary>
/// <remarks>
/// Its notices only say that something changed; what is so is always asked. So a notice may come ten times, late, in any
/// order or never: <see cref="ChangedAsync"/> finds what no notice told of.
/// </remarks>
public interface IPaymentProvider
{
    /// <summary>The ways in which a client can pay; none where no provider is set up.</summary>
    IReadOnlyList<PaymentMeans> Ways { get; }

    /// <summary>Begins a payment.</summary>
    /// <returns>The provider's session and the address of its page.</returns>
    Task<(string Session, string Page)> BeginAsync(PaymentAsk ask);

    /// <summary>The ways whose means can be kept and charged later; none where the provider cannot.</summary>
    IReadOnlyList<PaymentMeans> Keeps { get; }

    /// <summary>Charges a means that is kept, without its owner; the same key does it once. What became of it is said by <see cref="AskAsync"/>.</summary>
    /// <returns>The provider's session.</returns>
    Task<string> ChargeAsync(string token, PaymentAsk ask);

    /// <summary>How a payment stands.</summary>
    Task<ProviderPayment> AskAsync(string session);

    /// <summary>Gives a part of a payment back; the same key does it once. What became of it is said by <see cref="AskAsync"/>.</summary>
    Task RefundAsync(string session, string key, Money amount);

    /// <summary>Payments on which something changed since an instant.</summary>
    Task<IReadOnlyList<string>> ChangedAsync(Instant since);

    /// <summary>The payment that a notice speaks of; null where its signature is not the provider's.</summary>
    string? SessionOf(string notice, string signature);
}

/// <summary>For a studio without a provider: clients pay by transfer.</summary>
public sealed class NoPaymentProvider : IPaymentProvider
{
    public IReadOnlyList<PaymentMeans> Ways => [];

    /// <inheritdoc/>
    public IReadOnlyList<PaymentMeans> Keeps => [];

    /// <inheritdoc/>
    public Task<string> ChargeAsync(string token, PaymentAsk ask) =>
        throw new RefusedException("No provider of payments is set up, so nothing can be charged.");

    /// <inheritdoc/>
    public Task<(string Session, string Page)> BeginAsync(PaymentAsk ask) =>
        throw new RefusedException(
            "Paying on this page is not set up here. Please pay by transfer, with the details on the invoice."
        );

    /// <inheritdoc/>
    public Task<ProviderPayment> AskAsync(string session) => Task.FromResult(ProviderPayment.Nothing);

    /// <inheritdoc/>
    public Task RefundAsync(string session, string key, Money amount) => Task.CompletedTask;

    /// <inheritdoc/>
    public Task<IReadOnlyList<string>> ChangedAsync(Instant since) => Task.FromResult<IReadOnlyList<string>>([]);

    /// <inheritdoc/>
    public string? SessionOf(string notice, string signature) => null;
}
