# frozen_string_literal: true

require "digest"

module NimbleServer
  module Features
    module Workshop
      # Engines under the pencil: one draft of an engine for the whole shop, with a version, kept as it is typed, faults
      # and all. Two who change the same one see each other's.
      class Drafts
        # A profile is a few hundred kilobytes at most.
        LARGEST = 1_000_000

        def initialize(shop)
          @shop = shop
          @house = HouseRules::House.new(shop)
        end

        # @return [Array<Hash>] see the contract, WorkshopDrafts
        def list
          @shop[:engine_drafts]
            .order(Sequel.desc(:updated_at))
            .map do |row|
              {
                "code" => row[:code],
                "name" => row[:profile]["name"].to_s,
                "by" => name_of(row[:updated_by]),
                "updated_at" => row[:updated_at].iso8601
              }
            end
        end

        # @return [Hash] see the contract, WorkshopDraft
        def page(code) = said(find(code))

        # Begins to draw an engine, or goes on with what is there.
        # @param given [Hash] see the contract, BeginDraft
        # @raise [Refusal] 409 for a new engine under a code that is in use
        def begin(given)
          found = Beginning.new(@shop, given, kinds: kinds, house: @house.settings)
          @shop.transaction do
            @shop.alone("engine-draft:#{found.code}")
            found.refuse_code
            add(found) if rows(found.code).empty?
            page(found.code)
          end
        end

        # @raise [Refusal] 409 when somebody else has stored a newer one
        # @return [Hash] see the contract, WorkshopStored
        def store(code, version, profile)
          refuse_size(profile)
          @shop.transaction do
            current = locked(code)
            raise conflict(current) unless current[:version] == version

            rows(code).update(
              profile: Sequel.pg_jsonb(profile),
              version: version + 1,
              updated_at: @shop.now,
              updated_by: @shop.actor.account_id
            )
          end
          { "version" => version + 1, "look" => look(profile) }
        end

        # What an act on the drawing makes of a profile; nothing is stored.
        # @return [Hash] see the contract, WorkshopActed
        def act(profile, act)
          refuse_size(profile)
          NimbleLedger::Profile::SHAPE.check!(profile, what: "engine profile", code: "invalid_profile")
          made = NimbleLedger::Workshop::Acts.new(profile, kinds: kinds).apply(act)
          { "profile" => made, "look" => look(made) }
        end

        # Keeps a draft as the next revision of its engine.
        # @param why [String]
        # @raise [Refusal] 409 when the draft, or the engine itself, was changed meanwhile
        # @return [Hash] the report of what was done
        def keep(code, version, why, library:)
          @shop.transaction do
            current = locked(code)
            raise conflict(current) unless current[:version] == version

            refuse_older(current)
            report = library.import(current[:profile].to_h, why: why)
            rows(code).delete
            report
          end
        end

        def throw_away(code)
          find(code)
          rows(code).delete
          { "drafts" => list }
        end

        # What engines of a kind take, by the shop's own and the shipped ones.
        # @return [NimbleLedger::Workshop::UsualTimes]
        def kinds = @kinds ||= known_kinds

        private

        def known_kinds
          heads = Library.newest_of_each(@shop)
          Library.worked_out("kinds", *heads.map { |head| head[:id] }) do
            own = heads.map { |head| Library.engine(@shop, head[:id]).source }
            NimbleLedger::Workshop::UsualTimes.new(own + Engines::Patterns.shipped)
          end
        end

        def rows(code) = @shop[:engine_drafts].where(code: code)
        def find(code) = rows(code).first || raise(Refusal.not_found("draft of #{code}"))
        def locked(code) = rows(code).for_update.first || raise(Refusal.not_found("draft of #{code}"))
        def name_of(id) = id && @shop.db[:accounts].where(shop_id: @shop.id, id: id).get(:name)

        def add(found)
          @shop.insert(
            :engine_drafts,
            code: found.code,
            base_revision: found.revision,
            began: found.began,
            profile: Sequel.pg_jsonb(found.profile),
            version: 1,
            updated_at: @shop.now,
            updated_by: @shop.actor.account_id
          )
        end

        def said(row)
          profile = row[:profile].to_h
          {
            "code" => row[:code],
            "version" => row[:version],
            "base_revision" => row[:base_revision],
            "newest_revision" => Library.heads(@shop).where(code: row[:code]).max(:revision),
            "began" => row[:began],
            "by" => name_of(row[:updated_by]),
            "updated_at" => row[:updated_at].iso8601,
            "profile" => profile,
            "look" => look(profile)
          }
        end

        # What was looked at a moment ago, by an act, is not looked at again when it is stored.
        def look(profile)
          prices = @shop.newest(:price_lists)
          Library.looked_at([Digest::SHA256.digest(JSON.generate(profile)), @house.id, prices, kinds.object_id]) do
            NimbleLedger::Workshop::ProfilePreview.new(
              profile,
              kinds: kinds,
              house: @house.settings,
              equipment: @house.equipment,
              catalog: Library.catalog(@shop, prices)
            ).to_h
          end
        end

        def refuse_size(profile)
          return if JSON.generate(profile).bytesize <= LARGEST

          raise Refusal.new(413, "too_large", "A profile is at most #{LARGEST / 1000} kB. Nothing was stored.")
        end

        # Somebody imported or kept another revision since this draft was begun.
        def refuse_older(current)
          newest = Library.heads(@shop).where(code: current[:code]).max(:revision)
          return if newest == current[:base_revision]

          raise Refusal.new(
                  409,
                  "engine_changed",
                  "Revision #{newest} of #{current[:code]} was kept meanwhile. Compare the two, then begin anew."
                )
        end

        def conflict(current)
          Refusal.new(
            409,
            "draft_conflict",
            "#{name_of(current[:updated_by]) || "Somebody"} changed this engine meanwhile. Both versions are here: " \
              "choose one, nothing is lost.",
            extra: {
              "profile" => current[:profile].to_h,
              "theirs_version" => current[:version],
              "theirs_by" => name_of(current[:updated_by]),
              "theirs_at" => current[:updated_at].iso8601
            }
          )
        end
      end
    end
  end
end
