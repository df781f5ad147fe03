# frozen_string_literal: true

module NimbleServer
  module Features
    module People
      # Who works in a shop. Adds, for the owner: the list, inviting by a
      # one-time link, changing roles, ending access; for whoever holds a link: looking at it and joining.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/people", role: :owner) { Staff.new(shop).page }
          app.api(:put, "/api/people/:id", role: :owner, body: "ChangePerson") do
            Staff.new(shop).change(params["id"], body_json)
          end
          inviting(app)
          joining(app)
        end

        def self.inviting(app)
          app.api(:post, "/api/people/invitations", role: :owner, body: "NewInvitation") do
            json(Invitations.new(shop).invite(body_json), 201)
          end
          app.api(:delete, "/api/people/invitations/:id", role: :owner) do
            Invitations.new(shop).withdraw(uuid(params["id"], "invitation"))
            Staff.new(shop).page
          end
        end

        # The secret travels in the body: nothing logs a body.
        def self.joining(app)
          app.api(:post, "/api/join/look", role: :anyone, body: "LookAtInvitation") do
            Joining.new(settings.door, db, clock: settings.clock).look(body_json["token"])
          end
          app.api(:post, "/api/join", role: :anyone, body: "Join") do
            json(Joining.new(settings.door, db, clock: settings.clock).join(body_json), 201)
          end
        end
      end
    end
  end
end
