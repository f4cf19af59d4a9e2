using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using Gesamt.Core.Amounts;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Formats.Invoices;

/// <summary>Invoices and credit notes in UBL 2.1 (ISO/IEC 19845), by the syntax binding of CEN/TS 16931-3-2; with both parties' mail addresses also by Peppol BIS Billing 3.0.</summary>
public static class Ubl
{
    private const string Peppol = "urn:cen.eu:en16931:2017#compliant#urn:fdc:peppol.eu:2017:poacc:billing:3.0",
        PeppolProcess = "urn:fdc:peppol.eu:2017:poacc:billing:01:1.0",
        Core = "urn:cen.eu:en16931:2017";

    // UNTDID 1001: commercial invoice, credit note; UNTDID 4461: credit transfer; UNTDID 5189: discount; the EAS code of mail addresses
    private const string InvoiceType = "380",
        CreditNoteType = "381",
        CreditTransfer = "30",
        Discount = "95",
        MailScheme = "EM";
    private static readonly XNamespace Cac = "urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2",
        Cbc = "urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2",
        InvoiceName = "urn:oasis:names:specification:ubl:schema:xsd:Invoice-2",
        CreditName = "urn:oasis:names:specification:ubl:schema:xsd:CreditNote-2";

    /// <summary>Why an invoice has no UBL; null where it has.</summary>
    public static string? WhyNot(EInvoice invoice)
    {
        if (invoice.Currency.Exponent > 2)
            return $"EN 16931 knows amounts with two decimals, and {invoice.Currency.Code} has {invoice.Currency.Exponent.ToString(CultureInfo.InvariantCulture)}.";
        if (!Countries.IsCode(invoice.Seller.Country))
            return "EN 16931 asks for the studio’s country: write it on the studio’s page.";
        if (!Countries.IsCode(invoice.Buyer.Country))
            return "EN 16931 asks for the client’s country: write it on the client’s page.";
        if (string.IsNullOrWhiteSpace(invoice.Seller.TaxNumber))
            return "EN 16931 asks for the studio’s tax number: write it on the studio’s page.";
        bool Has(TaxCategory category) => invoice.Totals.Parts.Any(part => part.Category == category);
        // BR-E-10, BR-AE-2
        if (Has(TaxCategory.Exempt) && string.IsNullOrWhiteSpace(invoice.ExemptReason))
            return "EN 16931 asks why it is exempt of tax: write it on the studio’s page.";
        return Has(TaxCategory.ReverseCharge) && TaxNumbers.Vat(invoice.Buyer.TaxNumber) is null
            ? "EN 16931 asks for the client’s VAT number with its country before it, such as ATU12345678: write it on the client’s page."
            : null;
    }

    /// <summary>The document as bytes, in UTF-8.</summary>
    /// <exception cref="NotSupportedException">There is a reason in <see cref="WhyNot"/>.</exception>
    public static byte[] Write(EInvoice invoice)
    {
        if (WhyNot(invoice) is { } why)
            throw new NotSupportedException(why);
        using var bytes = new MemoryStream();
        using (
            var writer = XmlWriter.Create(
                bytes,
                new()
                {
                    Encoding = new UTF8Encoding(false),
                    Indent = true,
                    NewLineChars = "\n",
                }
            )
        )
            new XDocument(new Written(invoice).Document()).Save(writer);
        return bytes.ToArray();
    }

    /// <summary>One document; elements stand in the order of the schema's sequences.</summary>
    private sealed class Written(EInvoice invoice)
    {
        private readonly bool credit = invoice.Credits is not null;

        public XElement Document()
        {
            var peppol = invoice.Seller.Mail.Length > 0 && invoice.Buyer.Mail.Length > 0;
            var document = new XElement(
                credit ? CreditName + "CreditNote" : InvoiceName + "Invoice",
                new XAttribute(XNamespace.Xmlns + "cac", Cac.NamespaceName),
                new XAttribute(XNamespace.Xmlns + "cbc", Cbc.NamespaceName),
                Basic("CustomizationID", peppol ? Peppol : Core),
                peppol ? Basic("ProfileID", PeppolProcess) : null,
                Basic("ID", invoice.Number),
                Basic("IssueDate", Day(invoice.IssuedOn)),
                !credit && invoice.Due is { } due ? Basic("DueDate", Day(due)) : null,
                credit ? Basic("CreditNoteTypeCode", CreditNoteType) : Basic("InvoiceTypeCode", InvoiceType),
                Basic("Note", invoice.Note),
                Basic("DocumentCurrencyCode", invoice.Currency.Code),
                Basic("BuyerReference", invoice.BuyerReference),
                Period(),
                invoice.OrderReference.Length > 0 ? Group("OrderReference", Basic("ID", invoice.OrderReference)) : null,
                invoice.Credits is { } before
                    ? Group(
                        "BillingReference",
                        Group(
                            "InvoiceDocumentReference",
                            Basic("ID", before.Number),
                            Basic("IssueDate", Day(before.IssuedOn))
                        )
                    )
                    : null,
                Group("AccountingSupplierParty", Party(invoice.Seller, isSeller: true)),
                Group("AccountingCustomerParty", Party(invoice.Buyer, isSeller: false)),
                invoice.Performed is { } performed && performed.From == performed.Until
                    ? Group("Delivery", Basic("ActualDeliveryDate", Day(performed.From)))
                    : null,
                Payment(),
                invoice.Terms.Length > 0 && !credit ? Group("PaymentTerms", Basic("Note", invoice.Terms)) : null,
                invoice.Allowances.Select(Allowance),
                Taxes(),
                Sums(),
                invoice.Lines.Select(Line)
            );
            document.Elements().Where(IsEmpty).Remove();
            return document;
        }

        private XElement? Period() =>
            invoice.Performed is { } performed && performed.From != performed.Until
                ? Group(
                    "InvoicePeriod",
                    Basic("StartDate", Day(performed.From)),
                    Basic("EndDate", Day(performed.Until))
                )
                : null;

        private static XElement Party(EParty party, bool isSeller)
        {
            var vat = TaxNumbers.Vat(party.TaxNumber);
            var local = vat is null && isSeller ? party.TaxNumber.Trim() : "";
            return Group(
                "Party",
                party.Mail.Length > 0
                    ? Basic("EndpointID", party.Mail).With(new XAttribute("schemeID", MailScheme))
                    : null,
                // a seller without a VAT identifier is still told from others (BR-CO-26)
                local.Length > 0
                    ? Group("PartyIdentification", Basic("ID", local))
                    : null,
                Group("PartyName", Basic("Name", party.Name)),
                Address(party),
                vat is not null ? Scheme(vat, "VAT") : null,
                local.Length > 0 ? Scheme(local, "TAX") : null,
                Group("PartyLegalEntity", Basic("RegistrationName", party.Name)),
                Contact(party)
            );
        }

        private static XElement Scheme(string number, string scheme) =>
            Group("PartyTaxScheme", Basic("CompanyID", number), Group("TaxScheme", Basic("ID", scheme)));

        private static XElement? Contact(EParty party) =>
            party.Contact.Length + party.Phone.Length + party.Mail.Length == 0
                ? null
                : Group(
                    "Contact",
                    Basic("Name", party.Contact),
                    Basic("Telephone", party.Phone),
                    Basic("ElectronicMail", party.Mail)
                );

        private static XElement Address(EParty party) =>
            Group(
                "PostalAddress",
                party.Address.Length > 0 ? Basic("StreetName", party.Address[0]) : null,
                party.Address.Length > 1 ? Basic("AdditionalStreetName", party.Address[1]) : null,
                party.Address.Length > 2
                    ? Group("AddressLine", Basic("Line", string.Join(", ", party.Address.Skip(2))))
                    : null,
                Group("Country", Basic("IdentificationCode", party.Country))
            );

        private XElement? Payment() =>
            invoice.Payment is not { } payment || credit
                ? null
                : Group(
                    "PaymentMeans",
                    Basic("PaymentMeansCode", CreditTransfer),
                    Basic("PaymentID", payment.Reference),
                    Group(
                        "PayeeFinancialAccount",
                        Basic("ID", Iban.Plain(payment.Iban)),
                        Basic("Name", payment.Name),
                        payment.Bic.Length > 0 ? Group("FinancialInstitutionBranch", Basic("ID", payment.Bic)) : null
                    )
                );

        private XElement Allowance(EAllowance allowance) =>
            Group(
                "AllowanceCharge",
                Basic("ChargeIndicator", "false"),
                Basic("AllowanceChargeReasonCode", Discount),
                Basic("AllowanceChargeReason", allowance.Reason),
                Amount("Amount", allowance.Amount),
                Category("TaxCategory", allowance.Tax)
            );

        private XElement Taxes() =>
            Group(
                "TaxTotal",
                Amount("TaxAmount", invoice.Totals.Tax),
                invoice.Totals.Parts.Select(part =>
                    Group(
                        "TaxSubtotal",
                        Amount("TaxableAmount", part.Net),
                        Amount("TaxAmount", part.Tax),
                        Category("TaxCategory", part.Kind, Reason(part.Category))
                    )
                )
            );

        private IEnumerable<XElement?> Reason(TaxCategory category) =>
            category switch
            {
                TaxCategory.ReverseCharge =>
                [
                    Basic("TaxExemptionReasonCode", "VATEX-EU-AE"),
                    Basic("TaxExemptionReason", TaxCategories.ReverseChargeNote),
                ],
                TaxCategory.Exempt => [Basic("TaxExemptionReason", invoice.ExemptReason)],
                _ => [],
            };

        private XElement Sums()
        {
            var (currency, totals) = (invoice.Currency, invoice.Totals);
            var lines = invoice.Lines.Select(line => line.Net).Sum(currency);
            var less = invoice.Allowances.Select(allowance => allowance.Amount).Sum(currency);
            return Group(
                "LegalMonetaryTotal",
                Amount("LineExtensionAmount", lines),
                Amount("TaxExclusiveAmount", totals.Net),
                Amount("TaxInclusiveAmount", totals.Net + totals.Tax),
                less.Minor != 0 ? Amount("AllowanceTotalAmount", less) : null,
                totals.RoundingAmount.Minor != 0 ? Amount("PayableRoundingAmount", totals.RoundingAmount) : null,
                Amount("PayableAmount", totals.Payable)
            );
        }

        private XElement Line(ELine line, int i) =>
            Group(
                credit ? "CreditNoteLine" : "InvoiceLine",
                Basic("ID", (i + 1).ToString(CultureInfo.InvariantCulture)),
                Basic(credit ? "CreditedQuantity" : "InvoicedQuantity", Exact(line.Quantity))
                    .With(new XAttribute("unitCode", UnitCodes.Of(line.Unit))),
                Amount("LineExtensionAmount", line.Net),
                line.Less.Minor > 0
                    ? Group(
                        "AllowanceCharge",
                        Basic("ChargeIndicator", "false"),
                        Basic("AllowanceChargeReasonCode", Discount),
                        Amount("Amount", line.Less)
                    )
                    : null,
                Group(
                    "Item",
                    Basic("Description", line.Description),
                    Basic("Name", line.Name),
                    Category("ClassifiedTaxCategory", line.Tax)
                ),
                Group(
                    "Price",
                    Basic("PriceAmount", Exact(line.Price)).With(new XAttribute("currencyID", invoice.Currency.Code))
                )
            );

        private static XElement Category(string name, Tax tax, IEnumerable<XElement?>? reason = null) =>
            Group(
                name,
                Basic("ID", tax.Category.Code()),
                Basic("Percent", Exact(tax.Rate.InPercent)),
                reason,
                Group("TaxScheme", Basic("ID", "VAT"))
            );

        private XElement Amount(string name, Money amount) =>
            Basic(name, MoneyText.Exact(amount)).With(new XAttribute("currencyID", invoice.Currency.Code));

        /// <summary>An element with a text; nothing where there is no text, since none may be empty.</summary>
        private static XElement Basic(string name, string text) => new(Cbc + name, Clean(text));

        private static XElement Group(string name, params object?[] content)
        {
            var group = new XElement(Cac + name, content);
            group.Elements().Where(IsEmpty).Remove();
            return group;
        }

        private static bool IsEmpty(XElement element) => element.Name.Namespace == Cbc && element.Value.Length == 0;

        private static string Day(LocalDate day) => LocalDatePattern.Iso.Format(day);

        private static string Exact(decimal number) => number.ToString("0.############", CultureInfo.InvariantCulture);

        /// <summary>Without what XML 1.0 cannot hold.</summary>
        private static string Clean(string text) => new([.. text.Trim().Where(XmlConvert.IsXmlChar)]);
    }

    private static XElement With(this XElement element, XAttribute attribute)
    {
        element.Add(attribute);
        return element;
    }
}
