namespace Vlei.Core.Calendar;

/// <summary>A stretch of the calendar that periods are named by and columns are made of.</summary>
public enum TimeUnit
{
    /// <summary>From Monday to Sunday, as ISO 8601 has it.</summary>
    Week,

    /// <summary>A calendar month.</summary>
    Month,

    /// <summary>Three calendar months from January, April, July or October.</summary>
    Quarter,

    /// <summary>A calendar year.</summary>
    Year,

    /// <summary>Three months from the start of a fiscal year.</summary>
    FiscalQuarter,

    /// <summary>Twelve months from the book's fiscal start; named after the calendar year in which it ends.</summary>
    FiscalYear,
}
